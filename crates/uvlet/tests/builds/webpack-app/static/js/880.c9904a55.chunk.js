(Array.isArray(globalThis.webpackChunkharbour_cra)?globalThis.webpackChunkharbour_cra:globalThis.webpackChunkharbour_cra=[]).push([[880],{880:(e,t,n)=>{"use strict";}}]);
