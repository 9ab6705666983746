(self.webpackChunk_N_E=self.webpackChunk_N_E||[]).push([[462],{462:(e,t,n)=>{"use strict";}}]);
