(self.webpackChunk_N_E=self.webpackChunk_N_E||[]).push([[64],{8064:(e,t,n)=>{"use strict";}}]);
