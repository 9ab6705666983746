(self.webpackChunk_N_E=self.webpackChunk_N_E||[]).push([[647],{3888:(e,t,n)=>{"use strict";}}]);
