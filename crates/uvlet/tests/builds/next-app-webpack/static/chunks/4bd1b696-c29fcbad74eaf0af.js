(self.webpackChunk_N_E=self.webpackChunk_N_E||[]).push([[441],{9248:(e,t,n)=>{"use strict";}}]);
