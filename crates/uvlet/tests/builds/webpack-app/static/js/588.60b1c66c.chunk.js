(Array.isArray(globalThis.webpackChunkharbour_cra)?globalThis.webpackChunkharbour_cra:globalThis.webpackChunkharbour_cra=[]).push([[588],{588:(e,t,n)=>{"use strict";}}]);
