/*
 * ATTENTION: The "eval" devtool has been used (maybe by default in mode: "development").
 * This devtool is neither made for production nor for readable output files.
 * It uses "eval()" calls to create a separate source file in the browser devtools.
 * If you are trying to read the output file, select a different devtool (https://webpack.js.org/configuration/devtool/)
 * or disable the default devtool with "devtool: false".
 * If you are looking for production-ready output files, see mode: "production" (https://webpack.js.org/configuration/mode/).
 */
/******/ (() => { // webpackBootstrap
/******/ 	"use strict";
/******/ 	var __webpack_modules__ = ({

/***/ "./src/crew/crew.css"
/*!***************************!*\
  !*** ./src/crew/crew.css ***!
  \***************************/
(__unused_webpack_module, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n// extracted by mini-css-extract-plugin\n\n\n//# sourceURL=webpack:///./src/crew/crew.css?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/afterQuiet.js"
/*!*************************************************!*\
  !*** ./node_modules/ropework/lib/afterQuiet.js ***!
  \*************************************************/
(module) {

eval("{\nmodule.exports = function afterQuiet(fn, wait, options) {\n  let timer = null;\n  let lastArgs;\n  let lastThis;\n  const leading = Boolean(options && options.leading);\n  function fire() {\n    timer = null;\n    if (lastArgs) {\n      const args = lastArgs;\n      lastArgs = undefined;\n      fn.apply(lastThis, args);\n    }\n  }\n  function debounced() {\n    lastArgs = arguments;\n    lastThis = this;\n    if (leading && timer === null) fire();\n    clearTimeout(timer);\n    timer = setTimeout(fire, wait);\n  }\n  debounced.cancel = function () {\n    clearTimeout(timer);\n    timer = null;\n    lastArgs = undefined;\n  };\n  debounced.flush = fire;\n  return debounced;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/afterQuiet.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/alikeThroughout.js"
/*!******************************************************!*\
  !*** ./node_modules/ropework/lib/alikeThroughout.js ***!
  \******************************************************/
(module) {

eval("{\nmodule.exports = function alikeThroughout(a, b) {\n  if (Object.is(a, b)) return true;\n  if (typeof a !== \"object\" || typeof b !== \"object\" || !a || !b) return false;\n  if (a.constructor !== b.constructor) return false;\n  if (a instanceof Date) return a.getTime() === b.getTime();\n  if (Array.isArray(a)) {\n    return a.length === b.length && a.every((item, at) => alikeThroughout(item, b[at]));\n  }\n  const keys = Object.keys(a);\n  if (keys.length !== Object.keys(b).length) return false;\n  return keys.every((key) => key in b && alikeThroughout(a[key], b[key]));\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/alikeThroughout.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/anyOf.js"
/*!********************************************!*\
  !*** ./node_modules/ropework/lib/anyOf.js ***!
  \********************************************/
(module) {

eval("{\nmodule.exports = function anyOf(list, random) {\n  if (list.length === 0) return undefined;\n  return list[Math.floor((random || Math.random)() * list.length)];\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/anyOf.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/atMostEvery.js"
/*!**************************************************!*\
  !*** ./node_modules/ropework/lib/atMostEvery.js ***!
  \**************************************************/
(module) {

eval("{\nmodule.exports = function atMostEvery(fn, wait) {\n  let last = 0;\n  let timer = null;\n  return function throttled() {\n    const now = Date.now();\n    const rest = wait - (now - last);\n    if (rest <= 0) {\n      last = now;\n      fn.apply(this, arguments);\n    } else if (timer === null) {\n      const args = arguments;\n      timer = setTimeout(() => {\n        timer = null;\n        last = Date.now();\n        fn.apply(this, args);\n      }, rest);\n    }\n  };\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/atMostEvery.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/carrying.js"
/*!***********************************************!*\
  !*** ./node_modules/ropework/lib/carrying.js ***!
  \***********************************************/
(module) {

eval("{\nmodule.exports = function carrying(object, keys) {\n  const picked = {};\n  for (const key of keys) if (key in object) picked[key] = object[key];\n  return picked;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/carrying.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/countUp.js"
/*!**********************************************!*\
  !*** ./node_modules/ropework/lib/countUp.js ***!
  \**********************************************/
(module) {

eval("{\nmodule.exports = function countUp(start, end, step) {\n  if (end === undefined) {\n    end = start;\n    start = 0;\n  }\n  const stride = step || (end < start ? -1 : 1);\n  const numbers = [];\n  for (let at = start; stride > 0 ? at < end : at > end; at += stride) numbers.push(at);\n  return numbers;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/countUp.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/dashed.js"
/*!*********************************************!*\
  !*** ./node_modules/ropework/lib/dashed.js ***!
  \*********************************************/
(module, __unused_webpack_exports, __webpack_require__) {

eval("{\nconst wordsIn = __webpack_require__(/*! ./wordsIn */ \"./node_modules/ropework/lib/wordsIn.js\");\nmodule.exports = function dashed(text) {\n  return wordsIn(text).map((word) => word.toLowerCase()).join(\"-\");\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/dashed.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/eachRewritten.js"
/*!****************************************************!*\
  !*** ./node_modules/ropework/lib/eachRewritten.js ***!
  \****************************************************/
(module) {

eval("{\nmodule.exports = function eachRewritten(object, fn) {\n  const mapped = {};\n  for (const key of Object.keys(object)) mapped[key] = fn(object[key], key, object);\n  return mapped;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/eachRewritten.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/filedUnder.js"
/*!*************************************************!*\
  !*** ./node_modules/ropework/lib/filedUnder.js ***!
  \*************************************************/
(module) {

eval("{\nmodule.exports = function filedUnder(list, keyOf) {\n  const table = {};\n  for (const item of list) table[typeof keyOf === \"function\" ? keyOf(item) : item[keyOf]] = item;\n  return table;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/filedUnder.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/filledIn.js"
/*!***********************************************!*\
  !*** ./node_modules/ropework/lib/filledIn.js ***!
  \***********************************************/
(module, __unused_webpack_exports, __webpack_require__) {

eval("{\nconst safeMarkup = __webpack_require__(/*! ./safeMarkup */ \"./node_modules/ropework/lib/safeMarkup.js\");\nconst readAt = __webpack_require__(/*! ./readAt */ \"./node_modules/ropework/lib/readAt.js\");\nconst HOLE = /\\{\\{(\\{)?\\s*([\\w.[\\]]+)\\s*\\}?\\}\\}/g;\nmodule.exports = function filledIn(text, options) {\n  const missing = (options && options.missing) || \"\";\n  return function render(data) {\n    return text.replace(HOLE, (whole, raw, path) => {\n      const value = readAt(data, path, missing);\n      return raw ? String(value) : safeMarkup(value);\n    });\n  };\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/filledIn.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/firstOfEach.js"
/*!**************************************************!*\
  !*** ./node_modules/ropework/lib/firstOfEach.js ***!
  \**************************************************/
(module) {

eval("{\nmodule.exports = function firstOfEach(list, keyOf) {\n  const seen = new Set();\n  return list.filter((item) => {\n    const key = typeof keyOf === \"function\" ? keyOf(item) : item[keyOf];\n    if (seen.has(key)) return false;\n    seen.add(key);\n    return true;\n  });\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/firstOfEach.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/firstTimeOnly.js"
/*!****************************************************!*\
  !*** ./node_modules/ropework/lib/firstTimeOnly.js ***!
  \****************************************************/
(module) {

eval("{\nmodule.exports = function firstTimeOnly(fn) {\n  let called = false;\n  let result;\n  return function () {\n    if (!called) {\n      called = true;\n      result = fn.apply(this, arguments);\n      fn = null;\n    }\n    return result;\n  };\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/firstTimeOnly.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/fullCopy.js"
/*!***********************************************!*\
  !*** ./node_modules/ropework/lib/fullCopy.js ***!
  \***********************************************/
(module, __unused_webpack_exports, __webpack_require__) {

eval("{\nconst isBareRecord = __webpack_require__(/*! ./isBareRecord */ \"./node_modules/ropework/lib/isBareRecord.js\");\nmodule.exports = function fullCopy(value, seen) {\n  seen = seen || new Map();\n  if (value === null || typeof value !== \"object\") return value;\n  if (seen.has(value)) return seen.get(value);\n  if (value instanceof Date) return new Date(value.getTime());\n  if (value instanceof RegExp) return new RegExp(value.source, value.flags);\n  if (Array.isArray(value)) {\n    const list = [];\n    seen.set(value, list);\n    for (const item of value) list.push(fullCopy(item, seen));\n    return list;\n  }\n  if (!isBareRecord(value)) return value;\n  const copy = {};\n  seen.set(value, copy);\n  for (const key of Object.keys(value)) copy[key] = fullCopy(value[key], seen);\n  return copy;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/fullCopy.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/holdsNothing.js"
/*!***************************************************!*\
  !*** ./node_modules/ropework/lib/holdsNothing.js ***!
  \***************************************************/
(module) {

eval("{\nmodule.exports = function holdsNothing(value) {\n  if (value === null || value === undefined) return true;\n  if (typeof value === \"string\" || Array.isArray(value)) return value.length === 0;\n  if (value instanceof Map || value instanceof Set) return value.size === 0;\n  return typeof value === \"object\" && Object.keys(value).length === 0;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/holdsNothing.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/inAll.js"
/*!********************************************!*\
  !*** ./node_modules/ropework/lib/inAll.js ***!
  \********************************************/
(module) {

eval("{\nmodule.exports = function inAll(first) {\n  const rest = Array.prototype.slice.call(arguments, 1).map((list) => new Set(list));\n  return Array.from(new Set(first)).filter((item) => rest.every((set) => set.has(item)));\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/inAll.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/inBatches.js"
/*!************************************************!*\
  !*** ./node_modules/ropework/lib/inBatches.js ***!
  \************************************************/
(module) {

eval("{\nmodule.exports = function inBatches(list, size) {\n  if (!(size >= 1)) throw new RangeError(\"inBatches: size must be at least 1\");\n  const parts = [];\n  for (let at = 0; at < list.length; at += size) parts.push(list.slice(at, at + size));\n  return parts;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/inBatches.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/inHeaps.js"
/*!**********************************************!*\
  !*** ./node_modules/ropework/lib/inHeaps.js ***!
  \**********************************************/
(module) {

eval("{\nmodule.exports = function inHeaps(list, keyOf) {\n  const groups = {};\n  for (const item of list) {\n    const key = typeof keyOf === \"function\" ? keyOf(item) : item[keyOf];\n    if (Object.prototype.hasOwnProperty.call(groups, key)) groups[key].push(item);\n    else groups[key] = [item];\n  }\n  return groups;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/inHeaps.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/index.js"
/*!********************************************!*\
  !*** ./node_modules/ropework/lib/index.js ***!
  \********************************************/
(__unused_webpack_module, exports, __webpack_require__) {

eval("{\n// Every tool of the belt, under its own name.\nexports.inBatches = __webpack_require__(/*! ./inBatches */ \"./node_modules/ropework/lib/inBatches.js\");\nexports.within = __webpack_require__(/*! ./within */ \"./node_modules/ropework/lib/within.js\");\nexports.withoutGaps = __webpack_require__(/*! ./withoutGaps */ \"./node_modules/ropework/lib/withoutGaps.js\");\nexports.tallied = __webpack_require__(/*! ./tallied */ \"./node_modules/ropework/lib/tallied.js\");\nexports.afterQuiet = __webpack_require__(/*! ./afterQuiet */ \"./node_modules/ropework/lib/afterQuiet.js\");\nexports.fullCopy = __webpack_require__(/*! ./fullCopy */ \"./node_modules/ropework/lib/fullCopy.js\");\nexports.alikeThroughout = __webpack_require__(/*! ./alikeThroughout */ \"./node_modules/ropework/lib/alikeThroughout.js\");\nexports.layered = __webpack_require__(/*! ./layered */ \"./node_modules/ropework/lib/layered.js\");\nexports.notAmong = __webpack_require__(/*! ./notAmong */ \"./node_modules/ropework/lib/notAmong.js\");\nexports.safeMarkup = __webpack_require__(/*! ./safeMarkup */ \"./node_modules/ropework/lib/safeMarkup.js\");\nexports.unnested = __webpack_require__(/*! ./unnested */ \"./node_modules/ropework/lib/unnested.js\");\nexports.readAt = __webpack_require__(/*! ./readAt */ \"./node_modules/ropework/lib/readAt.js\");\nexports.inHeaps = __webpack_require__(/*! ./inHeaps */ \"./node_modules/ropework/lib/inHeaps.js\");\nexports.liesBetween = __webpack_require__(/*! ./liesBetween */ \"./node_modules/ropework/lib/liesBetween.js\");\nexports.inAll = __webpack_require__(/*! ./inAll */ \"./node_modules/ropework/lib/inAll.js\");\nexports.turnedRound = __webpack_require__(/*! ./turnedRound */ \"./node_modules/ropework/lib/turnedRound.js\");\nexports.holdsNothing = __webpack_require__(/*! ./holdsNothing */ \"./node_modules/ropework/lib/holdsNothing.js\");\nexports.isBareRecord = __webpack_require__(/*! ./isBareRecord */ \"./node_modules/ropework/lib/isBareRecord.js\");\nexports.dashed = __webpack_require__(/*! ./dashed */ \"./node_modules/ropework/lib/dashed.js\");\nexports.filedUnder = __webpack_require__(/*! ./filedUnder */ \"./node_modules/ropework/lib/filedUnder.js\");\nexports.eachRewritten = __webpack_require__(/*! ./eachRewritten */ \"./node_modules/ropework/lib/eachRewritten.js\");\nexports.remembering = __webpack_require__(/*! ./remembering */ \"./node_modules/ropework/lib/remembering.js\");\nexports.lacking = __webpack_require__(/*! ./lacking */ \"./node_modules/ropework/lib/lacking.js\");\nexports.firstTimeOnly = __webpack_require__(/*! ./firstTimeOnly */ \"./node_modules/ropework/lib/firstTimeOnly.js\");\nexports.ranked = __webpack_require__(/*! ./ranked */ \"./node_modules/ropework/lib/ranked.js\");\nexports.twoPiles = __webpack_require__(/*! ./twoPiles */ \"./node_modules/ropework/lib/twoPiles.js\");\nexports.carrying = __webpack_require__(/*! ./carrying */ \"./node_modules/ropework/lib/carrying.js\");\nexports.countUp = __webpack_require__(/*! ./countUp */ \"./node_modules/ropework/lib/countUp.js\");\nexports.anyOf = __webpack_require__(/*! ./anyOf */ \"./node_modules/ropework/lib/anyOf.js\");\nexports.writeAt = __webpack_require__(/*! ./writeAt */ \"./node_modules/ropework/lib/writeAt.js\");\nexports.filledIn = __webpack_require__(/*! ./filledIn */ \"./node_modules/ropework/lib/filledIn.js\");\nexports.atMostEvery = __webpack_require__(/*! ./atMostEvery */ \"./node_modules/ropework/lib/atMostEvery.js\");\nexports.shortened = __webpack_require__(/*! ./shortened */ \"./node_modules/ropework/lib/shortened.js\");\nexports.firstOfEach = __webpack_require__(/*! ./firstOfEach */ \"./node_modules/ropework/lib/firstOfEach.js\");\nexports.wordsIn = __webpack_require__(/*! ./wordsIn */ \"./node_modules/ropework/lib/wordsIn.js\");\nexports.pairedUp = __webpack_require__(/*! ./pairedUp */ \"./node_modules/ropework/lib/pairedUp.js\");\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/index.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/isBareRecord.js"
/*!***************************************************!*\
  !*** ./node_modules/ropework/lib/isBareRecord.js ***!
  \***************************************************/
(module) {

eval("{\nmodule.exports = function isBareRecord(value) {\n  if (Object.prototype.toString.call(value) !== \"[object Object]\") return false;\n  const prototype = Object.getPrototypeOf(value);\n  return prototype === null || prototype === Object.prototype;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/isBareRecord.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/lacking.js"
/*!**********************************************!*\
  !*** ./node_modules/ropework/lib/lacking.js ***!
  \**********************************************/
(module) {

eval("{\nmodule.exports = function lacking(object, keys) {\n  const gone = new Set(keys);\n  const rest = {};\n  for (const key of Object.keys(object)) if (!gone.has(key)) rest[key] = object[key];\n  return rest;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/lacking.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/layered.js"
/*!**********************************************!*\
  !*** ./node_modules/ropework/lib/layered.js ***!
  \**********************************************/
(module, __unused_webpack_exports, __webpack_require__) {

eval("{\nconst isBareRecord = __webpack_require__(/*! ./isBareRecord */ \"./node_modules/ropework/lib/isBareRecord.js\");\nmodule.exports = function layered(target) {\n  for (let at = 1; at < arguments.length; at++) {\n    const source = arguments[at];\n    for (const key of Object.keys(source || {})) {\n      if (key === \"__proto__\") continue;\n      if (isBareRecord(source[key]) && isBareRecord(target[key])) {\n        layered(target[key], source[key]);\n      } else if (source[key] !== undefined) {\n        target[key] = source[key];\n      }\n    }\n  }\n  return target;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/layered.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/liesBetween.js"
/*!**************************************************!*\
  !*** ./node_modules/ropework/lib/liesBetween.js ***!
  \**************************************************/
(module) {

eval("{\nmodule.exports = function liesBetween(value, start, end) {\n  if (end === undefined) return value >= 0 && value < start;\n  return value >= Math.min(start, end) && value < Math.max(start, end);\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/liesBetween.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/notAmong.js"
/*!***********************************************!*\
  !*** ./node_modules/ropework/lib/notAmong.js ***!
  \***********************************************/
(module) {

eval("{\nmodule.exports = function notAmong(list, others) {\n  const gone = new Set(others);\n  return list.filter((item) => !gone.has(item));\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/notAmong.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/pairedUp.js"
/*!***********************************************!*\
  !*** ./node_modules/ropework/lib/pairedUp.js ***!
  \***********************************************/
(module) {

eval("{\nmodule.exports = function pairedUp(keys, values) {\n  const object = {};\n  keys.forEach((key, at) => {\n    object[key] = values[at];\n  });\n  return object;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/pairedUp.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/ranked.js"
/*!*********************************************!*\
  !*** ./node_modules/ropework/lib/ranked.js ***!
  \*********************************************/
(module, __unused_webpack_exports, __webpack_require__) {

eval("{\nconst readAt = __webpack_require__(/*! ./readAt */ \"./node_modules/ropework/lib/readAt.js\");\nmodule.exports = function ranked(list, keys, directions) {\n  const sorters = keys.map((key, at) => ({\n    of: typeof key === \"function\" ? key : (item) => readAt(item, key),\n    sign: directions && directions[at] === \"desc\" ? -1 : 1,\n  }));\n  return list.slice().sort((a, b) => {\n    for (const { of, sign } of sorters) {\n      const left = of(a);\n      const right = of(b);\n      if (left < right) return -sign;\n      if (left > right) return sign;\n    }\n    return 0;\n  });\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/ranked.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/readAt.js"
/*!*********************************************!*\
  !*** ./node_modules/ropework/lib/readAt.js ***!
  \*********************************************/
(module) {

eval("{\nconst words = /[^.[\\]]+/g;\nmodule.exports = function readAt(object, path, fallback) {\n  const keys = Array.isArray(path) ? path : String(path).match(words) || [];\n  let value = object;\n  for (const key of keys) {\n    if (value === null || value === undefined) return fallback;\n    value = value[key];\n  }\n  return value === undefined ? fallback : value;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/readAt.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/remembering.js"
/*!**************************************************!*\
  !*** ./node_modules/ropework/lib/remembering.js ***!
  \**************************************************/
(module) {

eval("{\nmodule.exports = function remembering(fn, keyOf) {\n  const cache = new Map();\n  function memoized() {\n    const key = keyOf ? keyOf.apply(this, arguments) : arguments[0];\n    if (!cache.has(key)) cache.set(key, fn.apply(this, arguments));\n    return cache.get(key);\n  }\n  memoized.cache = cache;\n  return memoized;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/remembering.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/safeMarkup.js"
/*!*************************************************!*\
  !*** ./node_modules/ropework/lib/safeMarkup.js ***!
  \*************************************************/
(module) {

eval("{\nconst ENTITIES = { \"&\": \"&amp;\", \"<\": \"&lt;\", \">\": \"&gt;\", '\"': \"&quot;\", \"'\": \"&#39;\" };\nmodule.exports = function safeMarkup(text) {\n  return String(text).replace(/[&<>\"']/g, (c) => ENTITIES[c]);\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/safeMarkup.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/shortened.js"
/*!************************************************!*\
  !*** ./node_modules/ropework/lib/shortened.js ***!
  \************************************************/
(module) {

eval("{\nmodule.exports = function shortened(text, length, mark) {\n  const ending = mark === undefined ? \"…\" : mark;\n  if (text.length <= length) return text;\n  const cut = text.slice(0, Math.max(0, length - ending.length));\n  const space = cut.lastIndexOf(\" \");\n  return (space > length / 2 ? cut.slice(0, space) : cut) + ending;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/shortened.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/tallied.js"
/*!**********************************************!*\
  !*** ./node_modules/ropework/lib/tallied.js ***!
  \**********************************************/
(module) {

eval("{\nmodule.exports = function tallied(list, keyOf) {\n  const counts = Object.create(null);\n  for (const item of list) {\n    const key = typeof keyOf === \"function\" ? keyOf(item) : item[keyOf];\n    counts[key] = (counts[key] || 0) + 1;\n  }\n  return counts;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/tallied.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/turnedRound.js"
/*!**************************************************!*\
  !*** ./node_modules/ropework/lib/turnedRound.js ***!
  \**************************************************/
(module) {

eval("{\nmodule.exports = function turnedRound(object) {\n  const inverted = {};\n  for (const key of Object.keys(object)) inverted[object[key]] = key;\n  return inverted;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/turnedRound.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/twoPiles.js"
/*!***********************************************!*\
  !*** ./node_modules/ropework/lib/twoPiles.js ***!
  \***********************************************/
(module) {

eval("{\nmodule.exports = function twoPiles(list, test) {\n  const pass = [];\n  const fail = [];\n  list.forEach((item, at) => (test(item, at) ? pass : fail).push(item));\n  return [pass, fail];\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/twoPiles.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/unnested.js"
/*!***********************************************!*\
  !*** ./node_modules/ropework/lib/unnested.js ***!
  \***********************************************/
(module) {

eval("{\nmodule.exports = function unnested(list, depth) {\n  const limit = depth === undefined ? Infinity : depth;\n  const flat = [];\n  (function walk(items, level) {\n    for (const item of items) {\n      if (Array.isArray(item) && level < limit) walk(item, level + 1);\n      else flat.push(item);\n    }\n  })(list, 0);\n  return flat;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/unnested.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/within.js"
/*!*********************************************!*\
  !*** ./node_modules/ropework/lib/within.js ***!
  \*********************************************/
(module) {

eval("{\nmodule.exports = function within(value, low, high) {\n  if (Number.isNaN(value)) return low;\n  return Math.min(Math.max(value, low), high);\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/within.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/withoutGaps.js"
/*!**************************************************!*\
  !*** ./node_modules/ropework/lib/withoutGaps.js ***!
  \**************************************************/
(module) {

eval("{\nmodule.exports = function withoutGaps(list) {\n  const kept = [];\n  for (const item of list) if (item) kept.push(item);\n  return kept;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/withoutGaps.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/wordsIn.js"
/*!**********************************************!*\
  !*** ./node_modules/ropework/lib/wordsIn.js ***!
  \**********************************************/
(module) {

eval("{\nconst WORD = /[A-Z]{2,}(?=[A-Z][a-z]+|\\b)|[A-Z]?[a-z]+|[A-Z]|\\d+/g;\nmodule.exports = function wordsIn(text) {\n  return String(text).match(WORD) || [];\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/wordsIn.js?\n}");

/***/ },

/***/ "./node_modules/ropework/lib/writeAt.js"
/*!**********************************************!*\
  !*** ./node_modules/ropework/lib/writeAt.js ***!
  \**********************************************/
(module) {

eval("{\nmodule.exports = function writeAt(object, path, value) {\n  const keys = Array.isArray(path) ? path : String(path).match(/[^.[\\]]+/g) || [];\n  let node = object;\n  keys.forEach((key, at) => {\n    if (key === \"__proto__\") throw new TypeError(\"writeAt: forbidden key\");\n    if (at === keys.length - 1) node[key] = value;\n    else node = node[key] = node[key] || (/^\\d+$/.test(keys[at + 1]) ? [] : {});\n  });\n  return object;\n};\n\n\n//# sourceURL=webpack:///./node_modules/ropework/lib/writeAt.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/badge.js"
/*!************************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/badge.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   badge: () => (/* binding */ badge)\n/* harmony export */ });\n/* harmony import */ var _h_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./h.js */ \"./node_modules/@kelpwick/ui/src/h.js\");\n\nconst badge = (text, tone = \"calm\") => (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"span\", { class: `k-badge k-badge-${tone}` }, text);\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/badge.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/banner.js"
/*!*************************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/banner.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   banner: () => (/* binding */ banner)\n/* harmony export */ });\n/* harmony import */ var _h_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./h.js */ \"./node_modules/@kelpwick/ui/src/h.js\");\n/* harmony import */ var _icon_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./icon.js */ \"./node_modules/@kelpwick/ui/src/icon.js\");\n\n\nfunction banner(text, { kind = \"notice\", onClose } = {}) {\n  const root = (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"div\", { class: `k-banner k-banner-${kind}`, role: kind === \"warning\" ? \"alert\" : \"status\" }, (0,_icon_js__WEBPACK_IMPORTED_MODULE_1__.icon)(kind), (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"p\", {}, text));\n  if (onClose) root.append((0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"button\", { class: \"k-close\", \"aria-label\": \"Close\", onClick: () => (root.remove(), onClose()) }, \"×\"));\n  return root;\n}\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/banner.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/button.js"
/*!*************************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/button.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   button: () => (/* binding */ button)\n/* harmony export */ });\n/* harmony import */ var _h_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./h.js */ \"./node_modules/@kelpwick/ui/src/h.js\");\n\nconst button = (label, onClick, { kind = \"plain\", ...rest } = {}) =>\n  (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"button\", { type: \"button\", class: `k-button k-button-${kind}`, onClick, ...rest }, label);\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/button.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/card.js"
/*!***********************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/card.js ***!
  \***********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   card: () => (/* binding */ card)\n/* harmony export */ });\n/* harmony import */ var _h_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./h.js */ \"./node_modules/@kelpwick/ui/src/h.js\");\n\nconst card = (title, ...children) => (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"section\", { class: \"k-card\" }, (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"h3\", {}, title), ...children);\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/card.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/dialog.js"
/*!*************************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/dialog.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   dialog: () => (/* binding */ dialog)\n/* harmony export */ });\n/* harmony import */ var _button_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./button.js */ \"./node_modules/@kelpwick/ui/src/button.js\");\n/* harmony import */ var _h_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./h.js */ \"./node_modules/@kelpwick/ui/src/h.js\");\n\n\n/** A modal dialog; resolves with the value of the button that closed it, or null. */\nfunction dialog({ title, body, actions }) {\n  return new Promise((resolve) => {\n    const close = (value) => {\n      root.close();\n      root.remove();\n      resolve(value);\n    };\n    const row = actions.map(({ label, value, kind }) => (0,_button_js__WEBPACK_IMPORTED_MODULE_0__.button)(label, () => close(value), { kind }));\n    const root = (0,_h_js__WEBPACK_IMPORTED_MODULE_1__.h)(\"dialog\", { class: \"k-dialog\", \"aria-label\": title }, (0,_h_js__WEBPACK_IMPORTED_MODULE_1__.h)(\"h2\", {}, title), body, (0,_h_js__WEBPACK_IMPORTED_MODULE_1__.h)(\"footer\", {}, row));\n    root.addEventListener(\"cancel\", () => close(null));\n    document.body.append(root);\n    root.showModal();\n  });\n}\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/dialog.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/h.js"
/*!********************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/h.js ***!
  \********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   h: () => (/* binding */ h)\n/* harmony export */ });\n/** Makes an element: `h(\"p\", {class: \"note\"}, \"text\", child)`. */\nfunction h(name, props = {}, ...children) {\n  const node = document.createElement(name);\n  for (const [key, value] of Object.entries(props)) {\n    if (value === undefined || value === null || value === false) continue;\n    if (key.startsWith(\"on\")) node.addEventListener(key.slice(2).toLowerCase(), value);\n    else if (key === \"class\") node.className = value;\n    else if (key in node && key !== \"list\") node[key] = value;\n    else node.setAttribute(key, value === true ? \"\" : value);\n  }\n  node.append(...children.flat().filter((child) => child !== null && child !== undefined && child !== false));\n  return node;\n}\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/h.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/icon.js"
/*!***********************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/icon.js ***!
  \***********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   icon: () => (/* binding */ icon)\n/* harmony export */ });\nconst PATHS = {\n  notice: \"M12 2a10 10 0 1 0 0 20 10 10 0 0 0 0-20zm1 15h-2v-6h2zm0-8h-2V7h2z\",\n  warning: \"M1 21h22L12 2zm12-3h-2v-2h2zm0-4h-2v-4h2z\",\n  ferry: \"M4 18l-2-6h3V8h5V4h4v4h5v4h3l-2 6c-2 0-3 1-4 1s-2-1-4-1-3 1-4 1-2-1-4-1z\",\n  clock: \"M12 2a10 10 0 1 0 0 20 10 10 0 0 0 0-20zm1 5v5l4 3-1 2-5-4V7z\",\n  tide: \"M2 8c3 0 3 2 5 2s2-2 5-2 3 2 5 2 2-2 5-2v3c-3 0-3 2-5 2s-2-2-5-2-3 2-5 2-2-2-5-2z\",\n  person: \"M12 12a5 5 0 1 0 0-10 5 5 0 0 0 0 10zm0 2c-4 0-9 2-9 6v2h18v-2c0-4-5-6-9-6z\",\n};\nfunction icon(name, size = 20) {\n  const template = document.createElement(\"template\");\n  template.innerHTML = `<svg viewBox=\"0 0 24 24\" width=\"${size}\" height=\"${size}\" aria-hidden=\"true\"><path fill=\"currentColor\" d=\"${PATHS[name] ?? PATHS.notice}\"/></svg>`;\n  return template.content.firstChild;\n}\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/icon.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/index.js"
/*!************************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/index.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   badge: () => (/* reexport safe */ _badge_js__WEBPACK_IMPORTED_MODULE_6__.badge),\n/* harmony export */   banner: () => (/* reexport safe */ _banner_js__WEBPACK_IMPORTED_MODULE_3__.banner),\n/* harmony export */   button: () => (/* reexport safe */ _button_js__WEBPACK_IMPORTED_MODULE_0__.button),\n/* harmony export */   card: () => (/* reexport safe */ _card_js__WEBPACK_IMPORTED_MODULE_2__.card),\n/* harmony export */   dialog: () => (/* reexport safe */ _dialog_js__WEBPACK_IMPORTED_MODULE_1__.dialog),\n/* harmony export */   h: () => (/* reexport safe */ _h_js__WEBPACK_IMPORTED_MODULE_10__.h),\n/* harmony export */   icon: () => (/* reexport safe */ _icon_js__WEBPACK_IMPORTED_MODULE_7__.icon),\n/* harmony export */   plotCard: () => (/* reexport safe */ _plot_card_js__WEBPACK_IMPORTED_MODULE_9__.plotCard),\n/* harmony export */   spinner: () => (/* reexport safe */ _spinner_js__WEBPACK_IMPORTED_MODULE_8__.spinner),\n/* harmony export */   table: () => (/* reexport safe */ _table_js__WEBPACK_IMPORTED_MODULE_5__.table),\n/* harmony export */   tabs: () => (/* reexport safe */ _tabs_js__WEBPACK_IMPORTED_MODULE_4__.tabs)\n/* harmony export */ });\n/* harmony import */ var _button_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./button.js */ \"./node_modules/@kelpwick/ui/src/button.js\");\n/* harmony import */ var _dialog_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./dialog.js */ \"./node_modules/@kelpwick/ui/src/dialog.js\");\n/* harmony import */ var _card_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./card.js */ \"./node_modules/@kelpwick/ui/src/card.js\");\n/* harmony import */ var _banner_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ./banner.js */ \"./node_modules/@kelpwick/ui/src/banner.js\");\n/* harmony import */ var _tabs_js__WEBPACK_IMPORTED_MODULE_4__ = __webpack_require__(/*! ./tabs.js */ \"./node_modules/@kelpwick/ui/src/tabs.js\");\n/* harmony import */ var _table_js__WEBPACK_IMPORTED_MODULE_5__ = __webpack_require__(/*! ./table.js */ \"./node_modules/@kelpwick/ui/src/table.js\");\n/* harmony import */ var _badge_js__WEBPACK_IMPORTED_MODULE_6__ = __webpack_require__(/*! ./badge.js */ \"./node_modules/@kelpwick/ui/src/badge.js\");\n/* harmony import */ var _icon_js__WEBPACK_IMPORTED_MODULE_7__ = __webpack_require__(/*! ./icon.js */ \"./node_modules/@kelpwick/ui/src/icon.js\");\n/* harmony import */ var _spinner_js__WEBPACK_IMPORTED_MODULE_8__ = __webpack_require__(/*! ./spinner.js */ \"./node_modules/@kelpwick/ui/src/spinner.js\");\n/* harmony import */ var _plot_card_js__WEBPACK_IMPORTED_MODULE_9__ = __webpack_require__(/*! ./plot-card.js */ \"./node_modules/@kelpwick/ui/src/plot-card.js\");\n/* harmony import */ var _h_js__WEBPACK_IMPORTED_MODULE_10__ = __webpack_require__(/*! ./h.js */ \"./node_modules/@kelpwick/ui/src/h.js\");\n\n\n\n\n\n\n\n\n\n\n\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/index.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/plot-card.js"
/*!****************************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/plot-card.js ***!
  \****************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   plotCard: () => (/* binding */ plotCard)\n/* harmony export */ });\n/* harmony import */ var burgee_plot__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! burgee-plot */ \"./node_modules/burgee-plot/src/plot.js\");\n/* harmony import */ var burgee_plot__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! burgee-plot */ \"./node_modules/burgee-plot/src/registry.js\");\n/* harmony import */ var _card_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./card.js */ \"./node_modules/@kelpwick/ui/src/card.js\");\n/* harmony import */ var _plot_frame_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ./plot-frame.js */ \"./node_modules/@kelpwick/ui/src/plot-frame.js\");\n\n\n\n// Cards draw tide gauges with a mark of their own.\n(0,burgee_plot__WEBPACK_IMPORTED_MODULE_1__.register)(\"gauge\", ({ level, low, high }, { y }, box) => (0,_plot_frame_js__WEBPACK_IMPORTED_MODULE_3__.element)(box, y(low), y(high), y(level)));\nfunction plotCard(title, description) {\n  return (0,_card_js__WEBPACK_IMPORTED_MODULE_2__.card)(title, (0,burgee_plot__WEBPACK_IMPORTED_MODULE_0__.plot)({ width: 480, height: 220, tooltip: true, ...description }));\n}\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/plot-card.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/plot-frame.js"
/*!*****************************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/plot-frame.js ***!
  \*****************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   element: () => (/* binding */ element)\n/* harmony export */ });\nconst NAMESPACE = \"http://www.w3.org/2000/svg\";\nfunction element(box, low, high, level) {\n  const path = document.createElementNS(NAMESPACE, \"path\");\n  path.setAttribute(\"d\", `M${box.left} ${low}V${high}h10V${low}zM${box.left - 4} ${level}h18`);\n  path.setAttribute(\"stroke\", \"currentColor\");\n  return path;\n}\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/plot-frame.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/spinner.js"
/*!**************************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/spinner.js ***!
  \**************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   spinner: () => (/* binding */ spinner)\n/* harmony export */ });\n/* harmony import */ var _h_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./h.js */ \"./node_modules/@kelpwick/ui/src/h.js\");\n\nfunction spinner(label = \"Loading\") {\n  const root = (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"span\", { class: \"k-spinner\", role: \"status\" }, label);\n  let dots = 0;\n  const timer = setInterval(() => {\n    if (!root.isConnected) return clearInterval(timer);\n    dots = (dots + 1) % 4;\n    root.textContent = label + \".\".repeat(dots);\n  }, 400);\n  return root;\n}\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/spinner.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/table.js"
/*!************************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/table.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   table: () => (/* binding */ table)\n/* harmony export */ });\n/* harmony import */ var _h_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./h.js */ \"./node_modules/@kelpwick/ui/src/h.js\");\n\nfunction table(columns, rows, { caption, empty = \"Nothing to show\" } = {}) {\n  const head = (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"tr\", {}, columns.map(({ label, align }) => (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"th\", { scope: \"col\", class: align }, label)));\n  const line = (row) => (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"tr\", {}, columns.map(({ of, align }) => (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"td\", { class: align }, of(row))));\n  const body = rows.length > 0 ? rows.map(line) : [(0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"tr\", {}, (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"td\", { colSpan: columns.length }, empty))];\n  return (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"table\", { class: \"k-table\" }, caption && (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"caption\", {}, caption), (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"thead\", {}, head), (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"tbody\", {}, body));\n}\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/table.js?\n}");

/***/ },

/***/ "./node_modules/@kelpwick/ui/src/tabs.js"
/*!***********************************************!*\
  !*** ./node_modules/@kelpwick/ui/src/tabs.js ***!
  \***********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   tabs: () => (/* binding */ tabs)\n/* harmony export */ });\n/* harmony import */ var _h_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./h.js */ \"./node_modules/@kelpwick/ui/src/h.js\");\n\nfunction tabs(items, { selected = 0, onSelect } = {}) {\n  const panel = (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"div\", { role: \"tabpanel\" });\n  const heads = items.map(({ label }, at) => (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"button\", { role: \"tab\", type: \"button\", onClick: () => select(at) }, label));\n  function select(at) {\n    heads.forEach((head, n) => {\n      head.setAttribute(\"aria-selected\", String(n === at));\n      head.tabIndex = n === at ? 0 : -1;\n    });\n    panel.replaceChildren(items[at].body());\n    onSelect?.(at);\n  }\n  const list = (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"div\", { role: \"tablist\", class: \"k-tabs\" }, heads);\n  list.addEventListener(\"keydown\", (event) => {\n    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];\n    if (!step) return;\n    const next = (heads.indexOf(document.activeElement) + step + heads.length) % heads.length;\n    heads[next].focus();\n    select(next);\n  });\n  select(selected);\n  return (0,_h_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"div\", {}, list, panel);\n}\n\n\n//# sourceURL=webpack:///./node_modules/@kelpwick/ui/src/tabs.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/axis.js"
/*!**********************************************!*\
  !*** ./node_modules/burgee-plot/src/axis.js ***!
  \**********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   axis: () => (/* binding */ axis)\n/* harmony export */ });\n/* harmony import */ var _svg_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./svg.js */ \"./node_modules/burgee-plot/src/svg.js\");\n\nfunction axis(side, scale, box) {\n  const horizontal = side === \"x\";\n  const line = horizontal\n    ? `M${box.left} ${box.bottom}H${box.right}`\n    : `M${box.left} ${box.top}V${box.bottom}`;\n  const root = (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.group)({ class: `axis axis-${side}`, \"font-size\": 11 }, (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.element)(\"path\", { d: line, fill: \"none\", stroke: \"currentColor\" }));\n  for (const tick of scale.ticks(horizontal ? 8 : 5)) {\n    const at = scale(tick);\n    const text = (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.element)(\"text\", { dy: horizontal ? 18 : 4, dx: horizontal ? 0 : -8, \"text-anchor\": horizontal ? \"middle\" : \"end\" });\n    text.textContent = scale.format(tick);\n    const mark = (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.element)(\"line\", horizontal ? { y2: 5, stroke: \"currentColor\" } : { x2: -5, stroke: \"currentColor\" });\n    root.append((0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.group)({ transform: horizontal ? (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.translate)(at, box.bottom) : (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.translate)(box.left, at) }, mark, text));\n  }\n  return root;\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/axis.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/interaction/brush.js"
/*!***********************************************************!*\
  !*** ./node_modules/burgee-plot/src/interaction/brush.js ***!
  \***********************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   brush: () => (/* binding */ brush)\n/* harmony export */ });\n/* harmony import */ var _svg_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../svg.js */ \"./node_modules/burgee-plot/src/svg.js\");\n\nfunction brush(root, scales, box, onSelect) {\n  const shade = (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.element)(\"rect\", { y: box.top, height: box.bottom - box.top, fill: \"currentColor\", \"fill-opacity\": 0.12, visibility: \"hidden\" });\n  root.append(shade);\n  let start = null;\n  const place = (event) => {\n    const bounds = root.getBoundingClientRect();\n    const x = ((event.clientX - bounds.left) / bounds.width) * box.width;\n    return Math.min(box.right, Math.max(box.left, x));\n  };\n  root.addEventListener(\"pointerdown\", (event) => {\n    start = place(event);\n    root.setPointerCapture(event.pointerId);\n  });\n  root.addEventListener(\"pointermove\", (event) => {\n    if (start === null) return;\n    const [left, right] = [start, place(event)].sort((a, b) => a - b);\n    shade.setAttribute(\"visibility\", \"visible\");\n    shade.setAttribute(\"x\", left);\n    shade.setAttribute(\"width\", right - left);\n  });\n  root.addEventListener(\"pointerup\", (event) => {\n    if (start === null) return;\n    const ends = [start, place(event)].sort((a, b) => a - b).map(scales.x.invert);\n    start = null;\n    shade.setAttribute(\"visibility\", \"hidden\");\n    if (ends[0] !== ends[1]) onSelect(ends);\n  });\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/interaction/brush.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/interaction/zoom.js"
/*!**********************************************************!*\
  !*** ./node_modules/burgee-plot/src/interaction/zoom.js ***!
  \**********************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   zoom: () => (/* binding */ zoom)\n/* harmony export */ });\nfunction zoom(root, scales, box, redraw) {\n  root.addEventListener(\"wheel\", (event) => {\n    event.preventDefault();\n    const [low, high] = scales.x.domain;\n    const bounds = root.getBoundingClientRect();\n    const at = scales.x.invert(((event.clientX - bounds.left) / bounds.width) * box.width);\n    const factor = event.deltaY > 0 ? 1.2 : 1 / 1.2;\n    scales.x.domain[0] = at - (at - low) * factor;\n    scales.x.domain[1] = at + (high - at) * factor;\n    redraw();\n  }, { passive: false });\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/interaction/zoom.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/layout.js"
/*!************************************************!*\
  !*** ./node_modules/burgee-plot/src/layout.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   dodge: () => (/* binding */ dodge),\n/* harmony export */   frame: () => (/* binding */ frame),\n/* harmony export */   stack: () => (/* binding */ stack)\n/* harmony export */ });\nfunction frame(width, height, margin = {}) {\n  const { top = 16, right = 16, bottom = 32, left = 44 } = margin;\n  return { width, height, top, left, right: width - right, bottom: height - bottom };\n}\nfunction stack(series, { offset = \"zero\" } = {}) {\n  const totals = series[0].map((_, at) => series.reduce((sum, s) => sum + s[at], 0));\n  const base = totals.map((total) => (offset === \"center\" ? -total / 2 : 0));\n  return series.map((values) =>\n    values.map((value, at) => {\n      const low = base[at];\n      base[at] += offset === \"share\" ? value / (totals[at] || 1) : value;\n      return [low, base[at]];\n    }),\n  );\n}\nfunction dodge(items, radius) {\n  const placed = [];\n  for (const item of [...items].sort((a, b) => a.x - b.x)) {\n    let y = 0;\n    while (placed.some((p) => Math.hypot(p.x - item.x, p.y - y) < 2 * radius)) y = y > 0 ? -y : radius - y;\n    placed.push({ ...item, y });\n  }\n  return placed;\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/layout.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/legend.js"
/*!************************************************!*\
  !*** ./node_modules/burgee-plot/src/legend.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   legend: () => (/* binding */ legend)\n/* harmony export */ });\n/* harmony import */ var _svg_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./svg.js */ \"./node_modules/burgee-plot/src/svg.js\");\n\nfunction legend(scale, box) {\n  const root = (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.group)({ class: \"legend\", transform: (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.translate)(box.left + 8, box.top) });\n  scale.domain.forEach((name, at) => {\n    const text = (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.element)(\"text\", { x: 18, y: 10, \"font-size\": 11 });\n    text.textContent = name;\n    root.append((0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.group)({ transform: (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.translate)(0, at * 16) }, (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.element)(\"rect\", { width: 12, height: 12, fill: scale(name) }), text));\n  });\n  return root;\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/legend.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/palette.js"
/*!*************************************************!*\
  !*** ./node_modules/burgee-plot/src/palette.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   CATEGORICAL: () => (/* binding */ CATEGORICAL),\n/* harmony export */   contrast: () => (/* binding */ contrast),\n/* harmony export */   sequential: () => (/* binding */ sequential)\n/* harmony export */ });\nconst CATEGORICAL = [\"#1b6f8a\", \"#d0772c\", \"#5f8f3e\", \"#a4477d\", \"#7a6bb0\", \"#b5992b\", \"#4e5d6c\", \"#c25b56\"];\nconst stops = [[12, 44, 72], [21, 101, 130], [82, 160, 158], [181, 208, 160], [247, 238, 196]];\n/** A sequential colour for a share between 0 and 1. */\nfunction sequential(share) {\n  const at = Math.min(0.9999, Math.max(0, share)) * (stops.length - 1);\n  const low = Math.floor(at);\n  const channel = (i) => Math.round(stops[low][i] + (stops[low + 1][i] - stops[low][i]) * (at - low));\n  return `rgb(${channel(0)} ${channel(1)} ${channel(2)})`;\n}\nfunction contrast(color) {\n  const [r, g, b] = color.match(/\\d+/g)?.map(Number) ?? [0, 0, 0];\n  return r * 0.299 + g * 0.587 + b * 0.114 > 150 ? \"#000\" : \"#fff\";\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/palette.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/plot.js"
/*!**********************************************!*\
  !*** ./node_modules/burgee-plot/src/plot.js ***!
  \**********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   plot: () => (/* binding */ plot)\n/* harmony export */ });\n/* harmony import */ var _axis_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./axis.js */ \"./node_modules/burgee-plot/src/axis.js\");\n/* harmony import */ var _layout_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./layout.js */ \"./node_modules/burgee-plot/src/layout.js\");\n/* harmony import */ var _legend_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./legend.js */ \"./node_modules/burgee-plot/src/legend.js\");\n/* harmony import */ var _registry_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ./registry.js */ \"./node_modules/burgee-plot/src/registry.js\");\n/* harmony import */ var _scales_infer_js__WEBPACK_IMPORTED_MODULE_4__ = __webpack_require__(/*! ./scales/infer.js */ \"./node_modules/burgee-plot/src/scales/infer.js\");\n/* harmony import */ var _svg_js__WEBPACK_IMPORTED_MODULE_5__ = __webpack_require__(/*! ./svg.js */ \"./node_modules/burgee-plot/src/svg.js\");\n/* harmony import */ var _tooltip_js__WEBPACK_IMPORTED_MODULE_6__ = __webpack_require__(/*! ./tooltip.js */ \"./node_modules/burgee-plot/src/tooltip.js\");\n/* harmony import */ var _interaction_brush_js__WEBPACK_IMPORTED_MODULE_7__ = __webpack_require__(/*! ./interaction/brush.js */ \"./node_modules/burgee-plot/src/interaction/brush.js\");\n/* harmony import */ var _interaction_zoom_js__WEBPACK_IMPORTED_MODULE_8__ = __webpack_require__(/*! ./interaction/zoom.js */ \"./node_modules/burgee-plot/src/interaction/zoom.js\");\n\n\n\n\n\n\n\n\n\n/** Draws a description `{width, height, x, y, color, marks: [{type, data, …}]}` as an SVG element. */\nfunction plot(description) {\n  const { width = 640, height = 360, marks: list = [] } = description;\n  const box = (0,_layout_js__WEBPACK_IMPORTED_MODULE_1__.frame)(width, height, description.margin);\n  const root = (0,_svg_js__WEBPACK_IMPORTED_MODULE_5__.element)(\"svg\", { viewBox: `0 0 ${width} ${height}`, role: \"img\", \"aria-label\": description.title ?? \"\" });\n  const scales = {\n    x: (0,_scales_infer_js__WEBPACK_IMPORTED_MODULE_4__.infer)(\"x\", description.x, list, [box.left, box.right]),\n    y: (0,_scales_infer_js__WEBPACK_IMPORTED_MODULE_4__.infer)(\"y\", description.y, list, [box.bottom, box.top]),\n    color: (0,_scales_infer_js__WEBPACK_IMPORTED_MODULE_4__.infer)(\"color\", description.color, list),\n  };\n  if (description.axes !== false) root.append((0,_axis_js__WEBPACK_IMPORTED_MODULE_0__.axis)(\"x\", scales.x, box), (0,_axis_js__WEBPACK_IMPORTED_MODULE_0__.axis)(\"y\", scales.y, box));\n  for (const { type, ...options } of list) {\n    const mark = _registry_js__WEBPACK_IMPORTED_MODULE_3__.marks.get(type);\n    if (!mark) throw new RangeError(`no mark ${type}, there are ${[..._registry_js__WEBPACK_IMPORTED_MODULE_3__.marks.keys()].join(\", \")}`);\n    root.append(mark(options, scales, box));\n  }\n  if (scales.color && description.legend !== false) root.append((0,_legend_js__WEBPACK_IMPORTED_MODULE_2__.legend)(scales.color, box));\n  if (description.tooltip) (0,_tooltip_js__WEBPACK_IMPORTED_MODULE_6__.tooltip)(root, scales, list);\n  if (description.brush) (0,_interaction_brush_js__WEBPACK_IMPORTED_MODULE_7__.brush)(root, scales, box, description.brush);\n  if (description.zoom) (0,_interaction_zoom_js__WEBPACK_IMPORTED_MODULE_8__.zoom)(root, scales, box, () => root.replaceWith(plot(description)));\n  return root;\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/plot.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/registry.js"
/*!**************************************************!*\
  !*** ./node_modules/burgee-plot/src/registry.js ***!
  \**************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   marks: () => (/* binding */ marks),\n/* harmony export */   register: () => (/* binding */ register)\n/* harmony export */ });\nconst marks = new Map();\nfunction register(name, mark) {\n  if (marks.has(name)) throw new Error(`mark ${name} is registered already`);\n  marks.set(name, mark);\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/registry.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/scales/band.js"
/*!*****************************************************!*\
  !*** ./node_modules/burgee-plot/src/scales/band.js ***!
  \*****************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   band: () => (/* binding */ band)\n/* harmony export */ });\nfunction band(domain, range, { gap = 0.2 } = {}) {\n  const step = (range[1] - range[0]) / Math.max(1, domain.length);\n  const index = new Map(domain.map((name, at) => [name, at]));\n  const scale = (name) => range[0] + step * (index.get(name) + gap / 2);\n  scale.domain = domain;\n  scale.range = range;\n  scale.width = Math.abs(step) * (1 - gap);\n  scale.ticks = () => domain;\n  scale.format = String;\n  return scale;\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/scales/band.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/scales/infer.js"
/*!******************************************************!*\
  !*** ./node_modules/burgee-plot/src/scales/infer.js ***!
  \******************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   infer: () => (/* binding */ infer)\n/* harmony export */ });\n/* harmony import */ var _palette_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../palette.js */ \"./node_modules/burgee-plot/src/palette.js\");\n/* harmony import */ var _band_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./band.js */ \"./node_modules/burgee-plot/src/scales/band.js\");\n/* harmony import */ var _linear_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./linear.js */ \"./node_modules/burgee-plot/src/scales/linear.js\");\n/* harmony import */ var _time_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ./time.js */ \"./node_modules/burgee-plot/src/scales/time.js\");\n\n\n\n\nfunction infer(channel, given, marks, range) {\n  const values = marks.flatMap(({ data = [] }) => data.map((d) => d[channel])).filter((v) => v !== undefined);\n  if (channel === \"color\") {\n    if (values.length === 0) return null;\n    const domain = given?.domain ?? [...new Set(values)];\n    const scale = (name) => _palette_js__WEBPACK_IMPORTED_MODULE_0__.CATEGORICAL[domain.indexOf(name) % _palette_js__WEBPACK_IMPORTED_MODULE_0__.CATEGORICAL.length];\n    scale.domain = domain;\n    return scale;\n  }\n  if (given?.type === \"band\" || typeof values[0] === \"string\") return (0,_band_js__WEBPACK_IMPORTED_MODULE_1__.band)(given?.domain ?? [...new Set(values)], range, given);\n  const numbers = values.flat().map(Number);\n  const domain = given?.domain ?? [Math.min(...numbers, given?.zero ? 0 : Infinity), Math.max(...numbers)];\n  return given?.type === \"time\" || values[0] instanceof Date ? (0,_time_js__WEBPACK_IMPORTED_MODULE_3__.time)(domain, range, given) : (0,_linear_js__WEBPACK_IMPORTED_MODULE_2__.linear)(domain, range, given);\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/scales/infer.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/scales/linear.js"
/*!*******************************************************!*\
  !*** ./node_modules/burgee-plot/src/scales/linear.js ***!
  \*******************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   linear: () => (/* binding */ linear)\n/* harmony export */ });\n/* harmony import */ var sounding_math__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! sounding-math */ \"./node_modules/sounding-math/interpolate.js\");\n/* harmony import */ var _ticks_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ../ticks.js */ \"./node_modules/burgee-plot/src/ticks.js\");\n\n\nfunction linear(domain, range, { clamp = false, digits } = {}) {\n  const [low, high] = domain;\n  const scale = (value) => {\n    const t = (0,sounding_math__WEBPACK_IMPORTED_MODULE_0__.inverseLerp)(low, high, value);\n    return (0,sounding_math__WEBPACK_IMPORTED_MODULE_0__.lerp)(range[0], range[1], clamp ? Math.min(1, Math.max(0, t)) : t);\n  };\n  scale.domain = domain;\n  scale.range = range;\n  scale.invert = (at) => (0,sounding_math__WEBPACK_IMPORTED_MODULE_0__.lerp)(low, high, (0,sounding_math__WEBPACK_IMPORTED_MODULE_0__.inverseLerp)(range[0], range[1], at));\n  scale.ticks = (count) => (0,_ticks_js__WEBPACK_IMPORTED_MODULE_1__.steps)(low, high, (0,_ticks_js__WEBPACK_IMPORTED_MODULE_1__.niceStep)(high - low, count));\n  scale.format = (value) => value.toFixed(digits ?? (Math.abs(high - low) < 10 ? 1 : 0));\n  return scale;\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/scales/linear.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/scales/time.js"
/*!*****************************************************!*\
  !*** ./node_modules/burgee-plot/src/scales/time.js ***!
  \*****************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   time: () => (/* binding */ time)\n/* harmony export */ });\n/* harmony import */ var _linear_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./linear.js */ \"./node_modules/burgee-plot/src/scales/linear.js\");\n/* harmony import */ var _ticks_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ../ticks.js */ \"./node_modules/burgee-plot/src/ticks.js\");\n\n\nfunction time(domain, range, { locale, zone = \"UTC\" } = {}) {\n  const scale = (0,_linear_js__WEBPACK_IMPORTED_MODULE_0__.linear)(domain.map(Number), range);\n  const span = scale.domain[1] - scale.domain[0];\n  const options = span > 3 * 86400000 ? { day: \"numeric\", month: \"short\" } : { hour: \"2-digit\", minute: \"2-digit\" };\n  const format = new Intl.DateTimeFormat(locale, { ...options, timeZone: zone });\n  scale.ticks = (count) => (0,_ticks_js__WEBPACK_IMPORTED_MODULE_1__.timeSteps)(scale.domain[0], scale.domain[1], count);\n  scale.format = (value) => format.format(value);\n  return scale;\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/scales/time.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/svg.js"
/*!*********************************************!*\
  !*** ./node_modules/burgee-plot/src/svg.js ***!
  \*********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   element: () => (/* binding */ element),\n/* harmony export */   group: () => (/* binding */ group),\n/* harmony export */   round: () => (/* binding */ round),\n/* harmony export */   translate: () => (/* binding */ translate)\n/* harmony export */ });\nconst NAMESPACE = \"http://www.w3.org/2000/svg\";\nfunction element(name, attributes = {}, ...children) {\n  const node = document.createElementNS(NAMESPACE, name);\n  for (const [key, value] of Object.entries(attributes)) {\n    if (value !== undefined && value !== null) node.setAttribute(key, String(value));\n  }\n  node.append(...children);\n  return node;\n}\nconst group = (attributes, ...children) => element(\"g\", attributes, ...children);\nconst translate = (x, y) => `translate(${round(x)} ${round(y)})`;\nconst round = (value) => Math.round(value * 100) / 100;\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/svg.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/ticks.js"
/*!***********************************************!*\
  !*** ./node_modules/burgee-plot/src/ticks.js ***!
  \***********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   niceStep: () => (/* binding */ niceStep),\n/* harmony export */   steps: () => (/* binding */ steps),\n/* harmony export */   timeSteps: () => (/* binding */ timeSteps)\n/* harmony export */ });\nfunction niceStep(span, count) {\n  const rough = span / Math.max(1, count);\n  const power = 10 ** Math.floor(Math.log10(rough || 1));\n  const share = rough / power;\n  return power * (share > 5 ? 10 : share > 2 ? 5 : share > 1 ? 2 : 1);\n}\nfunction steps(low, high, step) {\n  const list = [];\n  for (let at = Math.ceil(low / step) * step; at <= high + step * 1e-9; at += step) list.push(Number(at.toPrecision(12)));\n  return list;\n}\nconst MINUTE = 60000;\nconst SPANS = [5, 15, 30, 60, 180, 360, 720, 1440, 2880, 10080].map((m) => m * MINUTE);\nfunction timeSteps(low, high, count) {\n  const step = SPANS.find((span) => (high - low) / span <= count) ?? SPANS.at(-1);\n  return steps(low, high, step);\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/ticks.js?\n}");

/***/ },

/***/ "./node_modules/burgee-plot/src/tooltip.js"
/*!*************************************************!*\
  !*** ./node_modules/burgee-plot/src/tooltip.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   tooltip: () => (/* binding */ tooltip)\n/* harmony export */ });\n/* harmony import */ var _svg_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./svg.js */ \"./node_modules/burgee-plot/src/svg.js\");\n\nfunction tooltip(root, scales, marks) {\n  const text = (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.element)(\"text\", { \"font-size\": 12, \"text-anchor\": \"middle\", \"pointer-events\": \"none\" });\n  const hint = (0,_svg_js__WEBPACK_IMPORTED_MODULE_0__.group)({ class: \"hint\", visibility: \"hidden\" }, text);\n  root.append(hint);\n  const points = marks.flatMap(({ data = [] }) => data).filter((d) => \"x\" in d && \"y\" in d);\n  root.addEventListener(\"pointermove\", (event) => {\n    const box = root.getBoundingClientRect();\n    const x = ((event.clientX - box.left) / box.width) * root.viewBox.baseVal.width;\n    let best = null;\n    for (const d of points) {\n      const away = Math.abs(scales.x(d.x) - x);\n      if (!best || away < best.away) best = { d, away };\n    }\n    hint.setAttribute(\"visibility\", best && best.away < 24 ? \"visible\" : \"hidden\");\n    if (!best) return;\n    text.textContent = best.d.label ?? `${scales.x.format(best.d.x)}: ${scales.y.format(best.d.y)}`;\n    text.setAttribute(\"x\", scales.x(best.d.x));\n    text.setAttribute(\"y\", scales.y(best.d.y) - 10);\n  });\n  root.addEventListener(\"pointerleave\", () => hint.setAttribute(\"visibility\", \"hidden\"));\n}\n\n\n//# sourceURL=webpack:///./node_modules/burgee-plot/src/tooltip.js?\n}");

/***/ },

/***/ "./node_modules/capstan-fetch/src/cache.js"
/*!*************************************************!*\
  !*** ./node_modules/capstan-fetch/src/cache.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   cached: () => (/* binding */ cached)\n/* harmony export */ });\nfunction cached(get, { lifetime = 60000, most = 50 } = {}) {\n  const kept = new Map();\n  return async function (path, options) {\n    const key = path + JSON.stringify(options?.params ?? null);\n    const hit = kept.get(key);\n    if (hit && Date.now() - hit.at < lifetime) return hit.value;\n    const value = get(path, options);\n    kept.set(key, { at: Date.now(), value });\n    if (kept.size > most) kept.delete(kept.keys().next().value);\n    value.catch(() => kept.delete(key));\n    return value;\n  };\n}\n\n\n//# sourceURL=webpack:///./node_modules/capstan-fetch/src/cache.js?\n}");

/***/ },

/***/ "./node_modules/capstan-fetch/src/client.js"
/*!**************************************************!*\
  !*** ./node_modules/capstan-fetch/src/client.js ***!
  \**************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   HttpError: () => (/* reexport safe */ _errors_js__WEBPACK_IMPORTED_MODULE_1__.HttpError),\n/* harmony export */   TimeoutError: () => (/* reexport safe */ _errors_js__WEBPACK_IMPORTED_MODULE_1__.TimeoutError),\n/* harmony export */   client: () => (/* binding */ client)\n/* harmony export */ });\n/* harmony import */ var _cache_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./cache.js */ \"./node_modules/capstan-fetch/src/cache.js\");\n/* harmony import */ var _errors_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./errors.js */ \"./node_modules/capstan-fetch/src/errors.js\");\n/* harmony import */ var _query_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./query.js */ \"./node_modules/capstan-fetch/src/query.js\");\n/* harmony import */ var _retry_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ./retry.js */ \"./node_modules/capstan-fetch/src/retry.js\");\n\n\n\n\n\nfunction client({ base, timeout = 8000, retries = 2, headers = {} }) {\n  async function send(method, path, { params, body, signal } = {}) {\n    const url = base + path + (0,_query_js__WEBPACK_IMPORTED_MODULE_2__.query)(params);\n    const stop = AbortSignal.timeout(timeout);\n    const response = await fetch(url, {\n      method,\n      headers: { accept: \"application/json\", ...(body ? { \"content-type\": \"application/json\" } : {}), ...headers },\n      body: body ? JSON.stringify(body) : undefined,\n      signal: signal ? AbortSignal.any([signal, stop]) : stop,\n    }).catch((error) => {\n      throw error.name === \"TimeoutError\" ? new _errors_js__WEBPACK_IMPORTED_MODULE_1__.TimeoutError(url, timeout) : error;\n    });\n    if (!response.ok) throw new _errors_js__WEBPACK_IMPORTED_MODULE_1__.HttpError(url, response.status, await response.text());\n    return response.status === 204 ? null : response.json();\n  }\n  const get = (0,_retry_js__WEBPACK_IMPORTED_MODULE_3__.retrying)((path, options) => send(\"GET\", path, options), retries);\n  return { get, getCached: (0,_cache_js__WEBPACK_IMPORTED_MODULE_0__.cached)(get), post: (path, body, options) => send(\"POST\", path, { ...options, body }) };\n}\n\n\n//# sourceURL=webpack:///./node_modules/capstan-fetch/src/client.js?\n}");

/***/ },

/***/ "./node_modules/capstan-fetch/src/errors.js"
/*!**************************************************!*\
  !*** ./node_modules/capstan-fetch/src/errors.js ***!
  \**************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   HttpError: () => (/* binding */ HttpError),\n/* harmony export */   TimeoutError: () => (/* binding */ TimeoutError)\n/* harmony export */ });\nclass HttpError extends Error {\n  constructor(url, status, body) {\n    super(`${url} answered ${status}`);\n    this.name = \"HttpError\";\n    this.status = status;\n    this.body = body;\n  }\n  get isClient() {\n    return this.status >= 400 && this.status < 500;\n  }\n}\nclass TimeoutError extends Error {\n  constructor(url, after) {\n    super(`${url} did not answer within ${after} ms`);\n    this.name = \"TimeoutError\";\n  }\n}\n\n\n//# sourceURL=webpack:///./node_modules/capstan-fetch/src/errors.js?\n}");

/***/ },

/***/ "./node_modules/capstan-fetch/src/query.js"
/*!*************************************************!*\
  !*** ./node_modules/capstan-fetch/src/query.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   query: () => (/* binding */ query)\n/* harmony export */ });\nfunction query(params) {\n  const search = new URLSearchParams();\n  for (const [key, value] of Object.entries(params ?? {})) {\n    if (value === undefined || value === null) continue;\n    for (const item of [].concat(value)) search.append(key, item instanceof Date ? item.toISOString() : item);\n  }\n  const text = search.toString();\n  return text ? `?${text}` : \"\";\n}\n\n\n//# sourceURL=webpack:///./node_modules/capstan-fetch/src/query.js?\n}");

/***/ },

/***/ "./node_modules/capstan-fetch/src/retry.js"
/*!*************************************************!*\
  !*** ./node_modules/capstan-fetch/src/retry.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   retrying: () => (/* binding */ retrying)\n/* harmony export */ });\nconst pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));\nfunction retrying(work, times) {\n  return async function (...args) {\n    for (let attempt = 0; ; attempt++) {\n      try {\n        return await work(...args);\n      } catch (error) {\n        if (attempt >= times || error.isClient || error.name === \"AbortError\") throw error;\n        await pause(200 * 2 ** attempt * (0.5 + Math.random()));\n      }\n    }\n  };\n}\n\n\n//# sourceURL=webpack:///./node_modules/capstan-fetch/src/retry.js?\n}");

/***/ },

/***/ "./node_modules/fairlead-bus/src/derived.js"
/*!**************************************************!*\
  !*** ./node_modules/fairlead-bus/src/derived.js ***!
  \**************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   derived: () => (/* binding */ derived)\n/* harmony export */ });\n/* harmony import */ var _store_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./store.js */ \"./node_modules/fairlead-bus/src/store.js\");\n\nfunction derived(sources, compute) {\n  const list = [].concat(sources);\n  const read = () => compute(...list.map((source) => source.get()));\n  const result = (0,_store_js__WEBPACK_IMPORTED_MODULE_0__[\"default\"])(read());\n  for (const source of list) source.subscribe(() => result.set(read()));\n  return { get: result.get, subscribe: result.subscribe };\n}\n\n\n//# sourceURL=webpack:///./node_modules/fairlead-bus/src/derived.js?\n}");

/***/ },

/***/ "./node_modules/fairlead-bus/src/emitter.js"
/*!**************************************************!*\
  !*** ./node_modules/fairlead-bus/src/emitter.js ***!
  \**************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   Emitter: () => (/* binding */ Emitter)\n/* harmony export */ });\nclass Emitter {\n  #handlers = new Map();\n  on(name, handler, { signal } = {}) {\n    if (!this.#handlers.has(name)) this.#handlers.set(name, new Set());\n    this.#handlers.get(name).add(handler);\n    const off = () => this.#handlers.get(name)?.delete(handler);\n    signal?.addEventListener(\"abort\", off, { once: true });\n    return off;\n  }\n  emit(name, ...args) {\n    for (const handler of [...(this.#handlers.get(name) ?? [])]) {\n      try {\n        handler(...args);\n      } catch (error) {\n        queueMicrotask(() => {\n          throw error;\n        });\n      }\n    }\n  }\n  get size() {\n    let size = 0;\n    for (const set of this.#handlers.values()) size += set.size;\n    return size;\n  }\n}\n\n\n//# sourceURL=webpack:///./node_modules/fairlead-bus/src/emitter.js?\n}");

/***/ },

/***/ "./node_modules/fairlead-bus/src/persisted.js"
/*!****************************************************!*\
  !*** ./node_modules/fairlead-bus/src/persisted.js ***!
  \****************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   persisted: () => (/* binding */ persisted)\n/* harmony export */ });\n/* harmony import */ var _store_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./store.js */ \"./node_modules/fairlead-bus/src/store.js\");\n\nfunction persisted(key, initial, storage = globalThis.localStorage) {\n  let saved = initial;\n  try {\n    const text = storage?.getItem(key);\n    if (text !== null && text !== undefined) saved = JSON.parse(text);\n  } catch {\n    saved = initial;\n  }\n  const result = (0,_store_js__WEBPACK_IMPORTED_MODULE_0__[\"default\"])(saved);\n  result.subscribe((value) => {\n    try {\n      storage?.setItem(key, JSON.stringify(value));\n    } catch {\n      // A full or forbidden storage must not break the page.\n    }\n  });\n  return result;\n}\n\n\n//# sourceURL=webpack:///./node_modules/fairlead-bus/src/persisted.js?\n}");

/***/ },

/***/ "./node_modules/fairlead-bus/src/store.js"
/*!************************************************!*\
  !*** ./node_modules/fairlead-bus/src/store.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   \"default\": () => (/* binding */ store)\n/* harmony export */ });\n/* harmony import */ var _emitter_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./emitter.js */ \"./node_modules/fairlead-bus/src/emitter.js\");\n\nfunction store(initial) {\n  const emitter = new _emitter_js__WEBPACK_IMPORTED_MODULE_0__.Emitter();\n  let value = initial;\n  let depth = 0;\n  let pending = false;\n  const announce = () => {\n    if (depth > 0) pending = true;\n    else emitter.emit(\"change\", value);\n  };\n  return {\n    get: () => value,\n    set(next) {\n      const after = typeof next === \"function\" ? next(value) : next;\n      if (Object.is(after, value)) return;\n      value = after;\n      announce();\n    },\n    batch(work) {\n      depth += 1;\n      try {\n        work();\n      } finally {\n        depth -= 1;\n        if (depth === 0 && pending) {\n          pending = false;\n          announce();\n        }\n      }\n    },\n    subscribe: (handler, options) => emitter.on(\"change\", handler, options),\n  };\n}\n\n\n//# sourceURL=webpack:///./node_modules/fairlead-bus/src/store.js?\n}");

/***/ },

/***/ "./node_modules/fogbell-log/index.js"
/*!*******************************************!*\
  !*** ./node_modules/fogbell-log/index.js ***!
  \*******************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   logger: () => (/* binding */ logger),\n/* harmony export */   setLevel: () => (/* binding */ setLevel)\n/* harmony export */ });\n/* harmony import */ var _sinks_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./sinks.js */ \"./node_modules/fogbell-log/sinks.js\");\n/* harmony import */ var _levels_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./levels.js */ \"./node_modules/fogbell-log/levels.js\");\n\n\nlet threshold = (0,_levels_js__WEBPACK_IMPORTED_MODULE_1__.levelOf)(globalThis.location?.hash === \"#debug\" ? \"debug\" : \"warn\");\nfunction setLevel(name) {\n  threshold = (0,_levels_js__WEBPACK_IMPORTED_MODULE_1__.levelOf)(name);\n}\nfunction logger(scope) {\n  const write = (level) => (message, detail) => {\n    if ((0,_levels_js__WEBPACK_IMPORTED_MODULE_1__.levelOf)(level) < threshold) return;\n    for (const sink of _sinks_js__WEBPACK_IMPORTED_MODULE_0__.sinks) sink({ at: Date.now(), level, scope, message, detail });\n  };\n  return Object.fromEntries(_levels_js__WEBPACK_IMPORTED_MODULE_1__.LEVELS.map((level) => [level, write(level)]));\n}\n\n\n//# sourceURL=webpack:///./node_modules/fogbell-log/index.js?\n}");

/***/ },

/***/ "./node_modules/fogbell-log/levels.js"
/*!********************************************!*\
  !*** ./node_modules/fogbell-log/levels.js ***!
  \********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   LEVELS: () => (/* binding */ LEVELS),\n/* harmony export */   levelOf: () => (/* binding */ levelOf)\n/* harmony export */ });\nconst LEVELS = [\"debug\", \"info\", \"warn\", \"error\"];\nconst levelOf = (name) => Math.max(0, LEVELS.indexOf(name));\n\n\n//# sourceURL=webpack:///./node_modules/fogbell-log/levels.js?\n}");

/***/ },

/***/ "./node_modules/fogbell-log/sinks.js"
/*!*******************************************!*\
  !*** ./node_modules/fogbell-log/sinks.js ***!
  \*******************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   recent: () => (/* binding */ recent),\n/* harmony export */   sinks: () => (/* binding */ sinks)\n/* harmony export */ });\nconst ring = [];\nconst sinks = [\n  (entry) => {\n    const method = entry.level === \"error\" ? \"error\" : entry.level === \"warn\" ? \"warn\" : \"log\";\n    console[method](`[${entry.scope}] ${entry.message}`, entry.detail ?? \"\");\n  },\n  (entry) => {\n    ring.push(entry);\n    if (ring.length > 200) ring.shift();\n  },\n];\nconst recent = () => [...ring];\n\n\n//# sourceURL=webpack:///./node_modules/fogbell-log/sinks.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/arithmetic.js"
/*!*************************************************!*\
  !*** ./node_modules/moorline/src/arithmetic.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   add: () => (/* binding */ add),\n/* harmony export */   difference: () => (/* binding */ difference),\n/* harmony export */   startOf: () => (/* binding */ startOf)\n/* harmony export */ });\nconst MS = { second: 1000, minute: 60000, hour: 3600000 };\nfunction add(date, amount, unit) {\n  const result = new Date(date);\n  if (unit in MS) result.setTime(result.getTime() + amount * MS[unit]);\n  else if (unit === \"day\" || unit === \"week\") result.setDate(result.getDate() + amount * (unit === \"week\" ? 7 : 1));\n  else {\n    const day = result.getDate();\n    result.setDate(1);\n    result.setMonth(result.getMonth() + amount * (unit === \"year\" ? 12 : 1));\n    const last = new Date(result.getFullYear(), result.getMonth() + 1, 0).getDate();\n    result.setDate(Math.min(day, last));\n  }\n  return result;\n}\nfunction startOf(date, unit, firstDay = 1) {\n  const result = new Date(date);\n  if (unit === \"hour\") result.setMinutes(0, 0, 0);\n  else result.setHours(0, 0, 0, 0);\n  if (unit === \"week\") result.setDate(result.getDate() - ((result.getDay() - firstDay + 7) % 7));\n  if (unit === \"month\") result.setDate(1);\n  return result;\n}\nfunction difference(a, b, unit = \"minute\") {\n  return (a - b) / (MS[unit] ?? 86400000);\n}\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/arithmetic.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/core.js"
/*!*******************************************!*\
  !*** ./node_modules/moorline/src/core.js ***!
  \*******************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   add: () => (/* reexport safe */ _arithmetic_js__WEBPACK_IMPORTED_MODULE_2__.add),\n/* harmony export */   difference: () => (/* reexport safe */ _arithmetic_js__WEBPACK_IMPORTED_MODULE_2__.difference),\n/* harmony export */   format: () => (/* reexport safe */ _format_js__WEBPACK_IMPORTED_MODULE_0__.format),\n/* harmony export */   language: () => (/* reexport safe */ _languages_js__WEBPACK_IMPORTED_MODULE_4__.language),\n/* harmony export */   languages: () => (/* reexport safe */ _languages_js__WEBPACK_IMPORTED_MODULE_4__.languages),\n/* harmony export */   parse: () => (/* reexport safe */ _parse_js__WEBPACK_IMPORTED_MODULE_1__.parse),\n/* harmony export */   register: () => (/* reexport safe */ _languages_js__WEBPACK_IMPORTED_MODULE_4__.register),\n/* harmony export */   relative: () => (/* reexport safe */ _relative_js__WEBPACK_IMPORTED_MODULE_3__.relative),\n/* harmony export */   startOf: () => (/* reexport safe */ _arithmetic_js__WEBPACK_IMPORTED_MODULE_2__.startOf)\n/* harmony export */ });\n/* harmony import */ var _format_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./format.js */ \"./node_modules/moorline/src/format.js\");\n/* harmony import */ var _parse_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./parse.js */ \"./node_modules/moorline/src/parse.js\");\n/* harmony import */ var _arithmetic_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./arithmetic.js */ \"./node_modules/moorline/src/arithmetic.js\");\n/* harmony import */ var _relative_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ./relative.js */ \"./node_modules/moorline/src/relative.js\");\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_4__ = __webpack_require__(/*! ./languages.js */ \"./node_modules/moorline/src/languages.js\");\n\n\n\n\n\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/core.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/format.js"
/*!*********************************************!*\
  !*** ./node_modules/moorline/src/format.js ***!
  \*********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   format: () => (/* binding */ format)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst TOKEN = /yyyy|yy|MMMM|MMM|MM|M|dd|d|EEEE|EEE|HH|H|hh|h|mm|ss|a|'[^']*'/g;\nconst two = (number) => String(number).padStart(2, \"0\");\nfunction format(date, pattern, name = \"en\") {\n  const words = (0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.language)(name);\n  const hours = date.getHours();\n  const values = {\n    yyyy: () => String(date.getFullYear()), yy: () => two(date.getFullYear() % 100),\n    MMMM: () => words.months[date.getMonth()], MMM: () => words.monthsShort[date.getMonth()],\n    MM: () => two(date.getMonth() + 1), M: () => String(date.getMonth() + 1),\n    dd: () => two(date.getDate()), d: () => String(date.getDate()),\n    EEEE: () => words.days[date.getDay()], EEE: () => words.daysShort[date.getDay()],\n    HH: () => two(hours), H: () => String(hours), hh: () => two(hours % 12 || 12), h: () => String(hours % 12 || 12),\n    mm: () => two(date.getMinutes()), ss: () => two(date.getSeconds()), a: () => words.dayPeriods[hours < 12 ? 0 : 1],\n  };\n  return (words.patterns[pattern] ?? pattern).replace(TOKEN, (token) => (token[0] === \"'\" ? token.slice(1, -1) : values[token]()));\n}\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/format.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/index.js"
/*!********************************************!*\
  !*** ./node_modules/moorline/src/index.js ***!
  \********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   add: () => (/* reexport safe */ _core_js__WEBPACK_IMPORTED_MODULE_1__.add),\n/* harmony export */   difference: () => (/* reexport safe */ _core_js__WEBPACK_IMPORTED_MODULE_1__.difference),\n/* harmony export */   format: () => (/* reexport safe */ _core_js__WEBPACK_IMPORTED_MODULE_1__.format),\n/* harmony export */   language: () => (/* reexport safe */ _core_js__WEBPACK_IMPORTED_MODULE_1__.language),\n/* harmony export */   languages: () => (/* reexport safe */ _core_js__WEBPACK_IMPORTED_MODULE_1__.languages),\n/* harmony export */   parse: () => (/* reexport safe */ _core_js__WEBPACK_IMPORTED_MODULE_1__.parse),\n/* harmony export */   register: () => (/* reexport safe */ _core_js__WEBPACK_IMPORTED_MODULE_1__.register),\n/* harmony export */   relative: () => (/* reexport safe */ _core_js__WEBPACK_IMPORTED_MODULE_1__.relative),\n/* harmony export */   startOf: () => (/* reexport safe */ _core_js__WEBPACK_IMPORTED_MODULE_1__.startOf)\n/* harmony export */ });\n/* harmony import */ var _locale_index_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./locale/index.js */ \"./node_modules/moorline/src/locale/index.js\");\n/* harmony import */ var _core_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./core.js */ \"./node_modules/moorline/src/core.js\");\n// Everything, with every language registered: handy while developing.\n\n\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/index.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/languages.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/languages.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   language: () => (/* binding */ language),\n/* harmony export */   languages: () => (/* binding */ languages),\n/* harmony export */   register: () => (/* binding */ register)\n/* harmony export */ });\nconst known = new Map();\nfunction register(name, data) {\n  known.set(name, data);\n}\nfunction language(name) {\n  const found = known.get(name) ?? known.get(name.split(\"-\")[0]) ?? known.get(\"en\");\n  if (!found) throw new Error(`moorline: language ${name} is not registered`);\n  return found;\n}\nconst languages = () => [...known.keys()];\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/languages.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/ar.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/ar.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   ar: () => (/* binding */ ar)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst ar = {\n  months: [\n    \"يناير\",\n    \"فبراير\",\n    \"مارس\",\n    \"أبريل\",\n    \"مايو\",\n    \"يونيو\",\n    \"يوليو\",\n    \"أغسطس\",\n    \"سبتمبر\",\n    \"أكتوبر\",\n    \"نوفمبر\",\n    \"ديسمبر\"\n  ],\n  monthsShort: [\n    \"يناير\",\n    \"فبراير\",\n    \"مارس\",\n    \"أبريل\",\n    \"مايو\",\n    \"يونيو\",\n    \"يوليو\",\n    \"أغسطس\",\n    \"سبتمبر\",\n    \"أكتوبر\",\n    \"نوفمبر\",\n    \"ديسمبر\"\n  ],\n  days: [\n    \"الأحد\",\n    \"الاثنين\",\n    \"الثلاثاء\",\n    \"الأربعاء\",\n    \"الخميس\",\n    \"الجمعة\",\n    \"السبت\"\n  ],\n  daysShort: [\n    \"الأحد\",\n    \"الاثنين\",\n    \"الثلاثاء\",\n    \"الأربعاء\",\n    \"الخميس\",\n    \"الجمعة\",\n    \"السبت\"\n  ],\n  dayPeriods: [\n    \"ص\",\n    \"م\"\n  ],\n  patterns: {\n    date: \"dd‏/MM‏/yyyy\",\n    longDate: \"EEEE، d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"قبل #\",\n    future: \"خلال #\",\n    minute: [\n      \"دقيقة\",\n      \"# دقائق\"\n    ],\n    hour: [\n      \"ساعة\",\n      \"# ساعات\"\n    ],\n    day: [\n      \"يوم\",\n      \"# أيام\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"ar\", ar);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/ar.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/be.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/be.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   be: () => (/* binding */ be)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst be = {\n  months: [\n    \"студзень\",\n    \"люты\",\n    \"сакавік\",\n    \"красавік\",\n    \"май\",\n    \"чэрвень\",\n    \"ліпень\",\n    \"жнівень\",\n    \"верасень\",\n    \"кастрычнік\",\n    \"лістапад\",\n    \"снежань\"\n  ],\n  monthsShort: [\n    \"сту\",\n    \"лют\",\n    \"сак\",\n    \"кра\",\n    \"май\",\n    \"чэр\",\n    \"ліп\",\n    \"жні\",\n    \"вер\",\n    \"кас\",\n    \"ліс\",\n    \"сне\"\n  ],\n  days: [\n    \"нядзеля\",\n    \"панядзелак\",\n    \"аўторак\",\n    \"серада\",\n    \"чацвер\",\n    \"пятніца\",\n    \"субота\"\n  ],\n  daysShort: [\n    \"нд\",\n    \"пн\",\n    \"аў\",\n    \"ср\",\n    \"чц\",\n    \"пт\",\n    \"сб\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, d MMMM yyyy г.\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# таму\",\n    future: \"праз #\",\n    minute: [\n      \"1 хвіліна\",\n      \"# хвілін\"\n    ],\n    hour: [\n      \"1 гадзіна\",\n      \"# гадзін\"\n    ],\n    day: [\n      \"1 суткі\",\n      \"# сутак\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"be\", be);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/be.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/bg.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/bg.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   bg: () => (/* binding */ bg)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst bg = {\n  months: [\n    \"януари\",\n    \"февруари\",\n    \"март\",\n    \"април\",\n    \"май\",\n    \"юни\",\n    \"юли\",\n    \"август\",\n    \"септември\",\n    \"октомври\",\n    \"ноември\",\n    \"декември\"\n  ],\n  monthsShort: [\n    \"01\",\n    \"02\",\n    \"03\",\n    \"04\",\n    \"05\",\n    \"06\",\n    \"07\",\n    \"08\",\n    \"09\",\n    \"10\",\n    \"11\",\n    \"12\"\n  ],\n  days: [\n    \"неделя\",\n    \"понеделник\",\n    \"вторник\",\n    \"сряда\",\n    \"четвъртък\",\n    \"петък\",\n    \"събота\"\n  ],\n  daysShort: [\n    \"нд\",\n    \"пн\",\n    \"вт\",\n    \"ср\",\n    \"чт\",\n    \"пт\",\n    \"сб\"\n  ],\n  dayPeriods: [\n    \"am\",\n    \"pm\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy г.\",\n    longDate: \"EEEE, d MMMM yyyy г.\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"преди #\",\n    future: \"след #\",\n    minute: [\n      \"1 минута\",\n      \"# минути\"\n    ],\n    hour: [\n      \"1 час\",\n      \"# часа\"\n    ],\n    day: [\n      \"1 ден\",\n      \"# дни\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"bg\", bg);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/bg.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/bn.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/bn.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   bn: () => (/* binding */ bn)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst bn = {\n  months: [\n    \"জানুয়ারি\",\n    \"ফেব্রুয়ারি\",\n    \"মার্চ\",\n    \"এপ্রিল\",\n    \"মে\",\n    \"জুন\",\n    \"জুলাই\",\n    \"আগস্ট\",\n    \"সেপ্টেম্বর\",\n    \"অক্টোবর\",\n    \"নভেম্বর\",\n    \"ডিসেম্বর\"\n  ],\n  monthsShort: [\n    \"জানু\",\n    \"ফেব\",\n    \"মার্চ\",\n    \"এপ্রিল\",\n    \"মে\",\n    \"জুন\",\n    \"জুলাই\",\n    \"আগস্ট\",\n    \"সেপ্ট\",\n    \"অক্টো\",\n    \"নভেম্বর\",\n    \"ডিসে\"\n  ],\n  days: [\n    \"রবিবার\",\n    \"সোমবার\",\n    \"মঙ্গলবার\",\n    \"বুধবার\",\n    \"বৃহস্পতিবার\",\n    \"শুক্রবার\",\n    \"শনিবার\"\n  ],\n  daysShort: [\n    \"রবি\",\n    \"সোম\",\n    \"মঙ্গল\",\n    \"বুধ\",\n    \"বৃহস্পতি\",\n    \"শুক্র\",\n    \"শনি\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE, d MMMM, yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# আগে\",\n    future: \"#য়\",\n    minute: [\n      \"১ মিনিট\",\n      \"# মিনিট\"\n    ],\n    hour: [\n      \"১ ঘণ্টা\",\n      \"# ঘণ্টা\"\n    ],\n    day: [\n      \"১ দিন\",\n      \"# দিন\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"bn\", bn);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/bn.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/ca.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/ca.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   ca: () => (/* binding */ ca)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst ca = {\n  months: [\n    \"gener\",\n    \"febrer\",\n    \"març\",\n    \"abril\",\n    \"maig\",\n    \"juny\",\n    \"juliol\",\n    \"agost\",\n    \"setembre\",\n    \"octubre\",\n    \"novembre\",\n    \"desembre\"\n  ],\n  monthsShort: [\n    \"gen.\",\n    \"febr.\",\n    \"març\",\n    \"abr.\",\n    \"maig\",\n    \"juny\",\n    \"jul.\",\n    \"ag.\",\n    \"set.\",\n    \"oct.\",\n    \"nov.\",\n    \"des.\"\n  ],\n  days: [\n    \"diumenge\",\n    \"dilluns\",\n    \"dimarts\",\n    \"dimecres\",\n    \"dijous\",\n    \"divendres\",\n    \"dissabte\"\n  ],\n  daysShort: [\n    \"dg.\",\n    \"dl.\",\n    \"dt.\",\n    \"dc.\",\n    \"dj.\",\n    \"dv.\",\n    \"ds.\"\n  ],\n  dayPeriods: [\n    \"a. m.\",\n    \"p. m.\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE, d MMMM' del 'yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"fa #\",\n    future: \"d’aquí a #\",\n    minute: [\n      \"1 minut\",\n      \"# minuts\"\n    ],\n    hour: [\n      \"1 hora\",\n      \"# hores\"\n    ],\n    day: [\n      \"1 dia\",\n      \"# dies\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"ca\", ca);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/ca.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/cs.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/cs.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   cs: () => (/* binding */ cs)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst cs = {\n  months: [\n    \"leden\",\n    \"únor\",\n    \"březen\",\n    \"duben\",\n    \"květen\",\n    \"červen\",\n    \"červenec\",\n    \"srpen\",\n    \"září\",\n    \"říjen\",\n    \"listopad\",\n    \"prosinec\"\n  ],\n  monthsShort: [\n    \"led\",\n    \"úno\",\n    \"bře\",\n    \"dub\",\n    \"kvě\",\n    \"čvn\",\n    \"čvc\",\n    \"srp\",\n    \"zář\",\n    \"říj\",\n    \"lis\",\n    \"pro\"\n  ],\n  days: [\n    \"neděle\",\n    \"pondělí\",\n    \"úterý\",\n    \"středa\",\n    \"čtvrtek\",\n    \"pátek\",\n    \"sobota\"\n  ],\n  daysShort: [\n    \"ne\",\n    \"po\",\n    \"út\",\n    \"st\",\n    \"čt\",\n    \"pá\",\n    \"so\"\n  ],\n  dayPeriods: [\n    \"dop.\",\n    \"odp.\"\n  ],\n  patterns: {\n    date: \"dd. MM. yyyy\",\n    longDate: \"EEEE d. MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"před #ami\",\n    future: \"za #\",\n    minute: [\n      \"1 minuta\",\n      \"# minut\"\n    ],\n    hour: [\n      \"1 hodina\",\n      \"# hodin\"\n    ],\n    day: [\n      \"1 den\",\n      \"# dnů\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"cs\", cs);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/cs.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/da.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/da.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   da: () => (/* binding */ da)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst da = {\n  months: [\n    \"januar\",\n    \"februar\",\n    \"marts\",\n    \"april\",\n    \"maj\",\n    \"juni\",\n    \"juli\",\n    \"august\",\n    \"september\",\n    \"oktober\",\n    \"november\",\n    \"december\"\n  ],\n  monthsShort: [\n    \"jan.\",\n    \"feb.\",\n    \"mar.\",\n    \"apr.\",\n    \"maj\",\n    \"jun.\",\n    \"jul.\",\n    \"aug.\",\n    \"sep.\",\n    \"okt.\",\n    \"nov.\",\n    \"dec.\"\n  ],\n  days: [\n    \"søndag\",\n    \"mandag\",\n    \"tirsdag\",\n    \"onsdag\",\n    \"torsdag\",\n    \"fredag\",\n    \"lørdag\"\n  ],\n  daysShort: [\n    \"søn.\",\n    \"man.\",\n    \"tirs.\",\n    \"ons.\",\n    \"tors.\",\n    \"fre.\",\n    \"lør.\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE' den 'd. MMMM yyyy\",\n    time: \"HH.mm\"\n  },\n  relative: {\n    past: \"for # siden\",\n    future: \"om #\",\n    minute: [\n      \"1 minut\",\n      \"# minutter\"\n    ],\n    hour: [\n      \"1 time\",\n      \"# timer\"\n    ],\n    day: [\n      \"1 dag\",\n      \"# dage\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"da\", da);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/da.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/de.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/de.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   de: () => (/* binding */ de)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst de = {\n  months: [\n    \"Januar\",\n    \"Februar\",\n    \"März\",\n    \"April\",\n    \"Mai\",\n    \"Juni\",\n    \"Juli\",\n    \"August\",\n    \"September\",\n    \"Oktober\",\n    \"November\",\n    \"Dezember\"\n  ],\n  monthsShort: [\n    \"Jan\",\n    \"Feb\",\n    \"Mär\",\n    \"Apr\",\n    \"Mai\",\n    \"Jun\",\n    \"Jul\",\n    \"Aug\",\n    \"Sep\",\n    \"Okt\",\n    \"Nov\",\n    \"Dez\"\n  ],\n  days: [\n    \"Sonntag\",\n    \"Montag\",\n    \"Dienstag\",\n    \"Mittwoch\",\n    \"Donnerstag\",\n    \"Freitag\",\n    \"Samstag\"\n  ],\n  daysShort: [\n    \"So\",\n    \"Mo\",\n    \"Di\",\n    \"Mi\",\n    \"Do\",\n    \"Fr\",\n    \"Sa\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, d. MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"vor #\",\n    future: \"in #\",\n    minute: [\n      \"1 Minute\",\n      \"# Minuten\"\n    ],\n    hour: [\n      \"1 Stunde\",\n      \"# Stunden\"\n    ],\n    day: [\n      \"1 Tag\",\n      \"# Tage\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"de\", de);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/de.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/el.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/el.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   el: () => (/* binding */ el)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst el = {\n  months: [\n    \"Ιανουαρίου\",\n    \"Φεβρουαρίου\",\n    \"Μαρτίου\",\n    \"Απριλίου\",\n    \"Μαΐου\",\n    \"Ιουνίου\",\n    \"Ιουλίου\",\n    \"Αυγούστου\",\n    \"Σεπτεμβρίου\",\n    \"Οκτωβρίου\",\n    \"Νοεμβρίου\",\n    \"Δεκεμβρίου\"\n  ],\n  monthsShort: [\n    \"Ιαν\",\n    \"Φεβ\",\n    \"Μαρ\",\n    \"Απρ\",\n    \"Μαΐ\",\n    \"Ιουν\",\n    \"Ιουλ\",\n    \"Αυγ\",\n    \"Σεπ\",\n    \"Οκτ\",\n    \"Νοε\",\n    \"Δεκ\"\n  ],\n  days: [\n    \"Κυριακή\",\n    \"Δευτέρα\",\n    \"Τρίτη\",\n    \"Τετάρτη\",\n    \"Πέμπτη\",\n    \"Παρασκευή\",\n    \"Σάββατο\"\n  ],\n  daysShort: [\n    \"Κυρ\",\n    \"Δευ\",\n    \"Τρί\",\n    \"Τετ\",\n    \"Πέμ\",\n    \"Παρ\",\n    \"Σάβ\"\n  ],\n  dayPeriods: [\n    \"π.μ.\",\n    \"μ.μ.\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"πριν από #\",\n    future: \"σε #\",\n    minute: [\n      \"1 λεπτό\",\n      \"# λεπτά\"\n    ],\n    hour: [\n      \"1 ώρα\",\n      \"# ώρες\"\n    ],\n    day: [\n      \"1 ημέρα\",\n      \"# ημέρες\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"el\", el);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/el.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/en.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/en.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   en: () => (/* binding */ en)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst en = {\n  months: [\n    \"January\",\n    \"February\",\n    \"March\",\n    \"April\",\n    \"May\",\n    \"June\",\n    \"July\",\n    \"August\",\n    \"September\",\n    \"October\",\n    \"November\",\n    \"December\"\n  ],\n  monthsShort: [\n    \"Jan\",\n    \"Feb\",\n    \"Mar\",\n    \"Apr\",\n    \"May\",\n    \"Jun\",\n    \"Jul\",\n    \"Aug\",\n    \"Sep\",\n    \"Oct\",\n    \"Nov\",\n    \"Dec\"\n  ],\n  days: [\n    \"Sunday\",\n    \"Monday\",\n    \"Tuesday\",\n    \"Wednesday\",\n    \"Thursday\",\n    \"Friday\",\n    \"Saturday\"\n  ],\n  daysShort: [\n    \"Sun\",\n    \"Mon\",\n    \"Tue\",\n    \"Wed\",\n    \"Thu\",\n    \"Fri\",\n    \"Sat\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"MM/dd/yyyy\",\n    longDate: \"EEEE, MMMM d, yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# ago\",\n    future: \"in #\",\n    minute: [\n      \"1 minute\",\n      \"# minutes\"\n    ],\n    hour: [\n      \"1 hour\",\n      \"# hours\"\n    ],\n    day: [\n      \"1 day\",\n      \"# days\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"en\", en);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/en.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/es.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/es.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   es: () => (/* binding */ es)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst es = {\n  months: [\n    \"enero\",\n    \"febrero\",\n    \"marzo\",\n    \"abril\",\n    \"mayo\",\n    \"junio\",\n    \"julio\",\n    \"agosto\",\n    \"septiembre\",\n    \"octubre\",\n    \"noviembre\",\n    \"diciembre\"\n  ],\n  monthsShort: [\n    \"ene\",\n    \"feb\",\n    \"mar\",\n    \"abr\",\n    \"may\",\n    \"jun\",\n    \"jul\",\n    \"ago\",\n    \"sept\",\n    \"oct\",\n    \"nov\",\n    \"dic\"\n  ],\n  days: [\n    \"domingo\",\n    \"lunes\",\n    \"martes\",\n    \"miércoles\",\n    \"jueves\",\n    \"viernes\",\n    \"sábado\"\n  ],\n  daysShort: [\n    \"dom\",\n    \"lun\",\n    \"mar\",\n    \"mié\",\n    \"jue\",\n    \"vie\",\n    \"sáb\"\n  ],\n  dayPeriods: [\n    \"a. m.\",\n    \"p. m.\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE, d' de 'MMMM' de 'yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"hace #\",\n    future: \"dentro de #\",\n    minute: [\n      \"1 minuto\",\n      \"# minutos\"\n    ],\n    hour: [\n      \"1 hora\",\n      \"# horas\"\n    ],\n    day: [\n      \"1 día\",\n      \"# días\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"es\", es);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/es.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/et.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/et.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   et: () => (/* binding */ et)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst et = {\n  months: [\n    \"jaanuar\",\n    \"veebruar\",\n    \"märts\",\n    \"aprill\",\n    \"mai\",\n    \"juuni\",\n    \"juuli\",\n    \"august\",\n    \"september\",\n    \"oktoober\",\n    \"november\",\n    \"detsember\"\n  ],\n  monthsShort: [\n    \"jaan\",\n    \"veebr\",\n    \"märts\",\n    \"apr\",\n    \"mai\",\n    \"juuni\",\n    \"juuli\",\n    \"aug\",\n    \"sept\",\n    \"okt\",\n    \"nov\",\n    \"dets\"\n  ],\n  days: [\n    \"pühapäev\",\n    \"esmaspäev\",\n    \"teisipäev\",\n    \"kolmapäev\",\n    \"neljapäev\",\n    \"reede\",\n    \"laupäev\"\n  ],\n  daysShort: [\n    \"P\",\n    \"E\",\n    \"T\",\n    \"K\",\n    \"N\",\n    \"R\",\n    \"L\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, d. MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# tunni eest\",\n    future: \"# tunni pärast\",\n    minute: [\n      \"1 minut\",\n      \"# minutit\"\n    ],\n    hour: [\n      \"1 tund\",\n      \"# tundi\"\n    ],\n    day: [\n      \"1 ööpäev\",\n      \"# ööpäeva\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"et\", et);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/et.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/eu.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/eu.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   eu: () => (/* binding */ eu)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst eu = {\n  months: [\n    \"urtarrila\",\n    \"otsaila\",\n    \"martxoa\",\n    \"apirila\",\n    \"maiatza\",\n    \"ekaina\",\n    \"uztaila\",\n    \"abuztua\",\n    \"iraila\",\n    \"urria\",\n    \"azaroa\",\n    \"abendua\"\n  ],\n  monthsShort: [\n    \"urt.\",\n    \"ots.\",\n    \"mar.\",\n    \"api.\",\n    \"mai.\",\n    \"eka.\",\n    \"uzt.\",\n    \"abu.\",\n    \"ira.\",\n    \"urr.\",\n    \"aza.\",\n    \"abe.\"\n  ],\n  days: [\n    \"igandea\",\n    \"astelehena\",\n    \"asteartea\",\n    \"asteazkena\",\n    \"osteguna\",\n    \"ostirala\",\n    \"larunbata\"\n  ],\n  daysShort: [\n    \"ig.\",\n    \"al.\",\n    \"ar.\",\n    \"az.\",\n    \"og.\",\n    \"or.\",\n    \"lr.\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"yyyy/MM/dd\",\n    longDate: \"yyyy'(e)ko 'MMMM'ren 'd'(a), 'EEEE\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"duela #\",\n    future: \"# barru\",\n    minute: [\n      \"1 minutu\",\n      \"# minutu\"\n    ],\n    hour: [\n      \"1 ordu\",\n      \"# ordu\"\n    ],\n    day: [\n      \"1 egun\",\n      \"# egun\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"eu\", eu);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/eu.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/fa.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/fa.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   fa: () => (/* binding */ fa)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst fa = {\n  months: [\n    \"دی\",\n    \"بهمن\",\n    \"اسفند\",\n    \"فروردین\",\n    \"اردیبهشت\",\n    \"خرداد\",\n    \"تیر\",\n    \"مرداد\",\n    \"شهریور\",\n    \"مهر\",\n    \"آبان\",\n    \"آذر\"\n  ],\n  monthsShort: [\n    \"دی\",\n    \"بهمن\",\n    \"اسفند\",\n    \"فروردین\",\n    \"اردیبهشت\",\n    \"خرداد\",\n    \"تیر\",\n    \"مرداد\",\n    \"شهریور\",\n    \"مهر\",\n    \"آبان\",\n    \"آذر\"\n  ],\n  days: [\n    \"یکشنبه\",\n    \"دوشنبه\",\n    \"سه‌شنبه\",\n    \"چهارشنبه\",\n    \"پنجشنبه\",\n    \"جمعه\",\n    \"شنبه\"\n  ],\n  daysShort: [\n    \"یکشنبه\",\n    \"دوشنبه\",\n    \"سه‌شنبه\",\n    \"چهارشنبه\",\n    \"پنجشنبه\",\n    \"جمعه\",\n    \"شنبه\"\n  ],\n  dayPeriods: [\n    \"ق.ظ.\",\n    \"ب.ظ.\"\n  ],\n  patterns: {\n    date: \"yyyy/MM/dd\",\n    longDate: \"yyyy MMMM d, EEEE\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# پیش\",\n    future: \"# بعد\",\n    minute: [\n      \"۱ دقیقه\",\n      \"# دقیقه\"\n    ],\n    hour: [\n      \"۱ ساعت\",\n      \"# ساعت\"\n    ],\n    day: [\n      \"۱ روز\",\n      \"# روز\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"fa\", fa);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/fa.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/fi.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/fi.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   fi: () => (/* binding */ fi)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst fi = {\n  months: [\n    \"tammikuu\",\n    \"helmikuu\",\n    \"maaliskuu\",\n    \"huhtikuu\",\n    \"toukokuu\",\n    \"kesäkuu\",\n    \"heinäkuu\",\n    \"elokuu\",\n    \"syyskuu\",\n    \"lokakuu\",\n    \"marraskuu\",\n    \"joulukuu\"\n  ],\n  monthsShort: [\n    \"tammi\",\n    \"helmi\",\n    \"maalis\",\n    \"huhti\",\n    \"touko\",\n    \"kesä\",\n    \"heinä\",\n    \"elo\",\n    \"syys\",\n    \"loka\",\n    \"marras\",\n    \"joulu\"\n  ],\n  days: [\n    \"sunnuntai\",\n    \"maanantai\",\n    \"tiistai\",\n    \"keskiviikko\",\n    \"torstai\",\n    \"perjantai\",\n    \"lauantai\"\n  ],\n  daysShort: [\n    \"su\",\n    \"ma\",\n    \"ti\",\n    \"ke\",\n    \"to\",\n    \"pe\",\n    \"la\"\n  ],\n  dayPeriods: [\n    \"ap.\",\n    \"ip.\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE d. MMMM yyyy\",\n    time: \"HH.mm\"\n  },\n  relative: {\n    past: \"# sitten\",\n    future: \"# tunnin päästä\",\n    minute: [\n      \"1 minuutti\",\n      \"# minuuttia\"\n    ],\n    hour: [\n      \"1 tunti\",\n      \"# tuntia\"\n    ],\n    day: [\n      \"1 päivä\",\n      \"# päivää\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"fi\", fi);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/fi.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/fr.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/fr.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   fr: () => (/* binding */ fr)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst fr = {\n  months: [\n    \"janvier\",\n    \"février\",\n    \"mars\",\n    \"avril\",\n    \"mai\",\n    \"juin\",\n    \"juillet\",\n    \"août\",\n    \"septembre\",\n    \"octobre\",\n    \"novembre\",\n    \"décembre\"\n  ],\n  monthsShort: [\n    \"janv.\",\n    \"févr.\",\n    \"mars\",\n    \"avr.\",\n    \"mai\",\n    \"juin\",\n    \"juil.\",\n    \"août\",\n    \"sept.\",\n    \"oct.\",\n    \"nov.\",\n    \"déc.\"\n  ],\n  days: [\n    \"dimanche\",\n    \"lundi\",\n    \"mardi\",\n    \"mercredi\",\n    \"jeudi\",\n    \"vendredi\",\n    \"samedi\"\n  ],\n  daysShort: [\n    \"dim.\",\n    \"lun.\",\n    \"mar.\",\n    \"mer.\",\n    \"jeu.\",\n    \"ven.\",\n    \"sam.\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"il y a # heures\",\n    future: \"dans # heures\",\n    minute: [\n      \"1 minute\",\n      \"# minutes\"\n    ],\n    hour: [\n      \"1 heure\",\n      \"# heures\"\n    ],\n    day: [\n      \"1 jour\",\n      \"# jours\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"fr\", fr);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/fr.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/ga.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/ga.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   ga: () => (/* binding */ ga)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst ga = {\n  months: [\n    \"Eanáir\",\n    \"Feabhra\",\n    \"Márta\",\n    \"Aibreán\",\n    \"Bealtaine\",\n    \"Meitheamh\",\n    \"Iúil\",\n    \"Lúnasa\",\n    \"Meán Fómhair\",\n    \"Deireadh Fómhair\",\n    \"Samhain\",\n    \"Nollaig\"\n  ],\n  monthsShort: [\n    \"Ean\",\n    \"Feabh\",\n    \"Márta\",\n    \"Aib\",\n    \"Beal\",\n    \"Meith\",\n    \"Iúil\",\n    \"Lún\",\n    \"MFómh\",\n    \"DFómh\",\n    \"Samh\",\n    \"Noll\"\n  ],\n  days: [\n    \"Dé Domhnaigh\",\n    \"Dé Luain\",\n    \"Dé Máirt\",\n    \"Dé Céadaoin\",\n    \"Déardaoin\",\n    \"Dé hAoine\",\n    \"Dé Sathairn\"\n  ],\n  daysShort: [\n    \"Domh\",\n    \"Luan\",\n    \"Máirt\",\n    \"Céad\",\n    \"Déar\",\n    \"Aoine\",\n    \"Sath\"\n  ],\n  dayPeriods: [\n    \"r.n.\",\n    \"i.n.\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"#air an chloig ó shin\",\n    future: \"i gceann #air an chloig\",\n    minute: [\n      \"1 nóim\",\n      \"# nóim\"\n    ],\n    hour: [\n      \"1 u\",\n      \"# u\"\n    ],\n    day: [\n      \"1 lá\",\n      \"# lá\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"ga\", ga);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/ga.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/gl.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/gl.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   gl: () => (/* binding */ gl)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst gl = {\n  months: [\n    \"xaneiro\",\n    \"febreiro\",\n    \"marzo\",\n    \"abril\",\n    \"maio\",\n    \"xuño\",\n    \"xullo\",\n    \"agosto\",\n    \"setembro\",\n    \"outubro\",\n    \"novembro\",\n    \"decembro\"\n  ],\n  monthsShort: [\n    \"xan.\",\n    \"feb.\",\n    \"mar.\",\n    \"abr.\",\n    \"maio\",\n    \"xuño\",\n    \"xul.\",\n    \"ago.\",\n    \"set.\",\n    \"out.\",\n    \"nov.\",\n    \"dec.\"\n  ],\n  days: [\n    \"domingo\",\n    \"luns\",\n    \"martes\",\n    \"mércores\",\n    \"xoves\",\n    \"venres\",\n    \"sábado\"\n  ],\n  daysShort: [\n    \"dom.\",\n    \"luns\",\n    \"mar.\",\n    \"mér.\",\n    \"xov.\",\n    \"ven.\",\n    \"sáb.\"\n  ],\n  dayPeriods: [\n    \"a.m.\",\n    \"p.m.\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE, d' de 'MMMM' de 'yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"hai #\",\n    future: \"en #\",\n    minute: [\n      \"1 minuto\",\n      \"# minutos\"\n    ],\n    hour: [\n      \"1 hora\",\n      \"# horas\"\n    ],\n    day: [\n      \"1 día\",\n      \"# días\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"gl\", gl);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/gl.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/he.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/he.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   he: () => (/* binding */ he)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst he = {\n  months: [\n    \"ינואר\",\n    \"פברואר\",\n    \"מרץ\",\n    \"אפריל\",\n    \"מאי\",\n    \"יוני\",\n    \"יולי\",\n    \"אוגוסט\",\n    \"ספטמבר\",\n    \"אוקטובר\",\n    \"נובמבר\",\n    \"דצמבר\"\n  ],\n  monthsShort: [\n    \"ינו׳\",\n    \"פבר׳\",\n    \"מרץ\",\n    \"אפר׳\",\n    \"מאי\",\n    \"יוני\",\n    \"יולי\",\n    \"אוג׳\",\n    \"ספט׳\",\n    \"אוק׳\",\n    \"נוב׳\",\n    \"דצמ׳\"\n  ],\n  days: [\n    \"יום ראשון\",\n    \"יום שני\",\n    \"יום שלישי\",\n    \"יום רביעי\",\n    \"יום חמישי\",\n    \"יום שישי\",\n    \"יום שבת\"\n  ],\n  daysShort: [\n    \"יום א׳\",\n    \"יום ב׳\",\n    \"יום ג׳\",\n    \"יום ד׳\",\n    \"יום ה׳\",\n    \"יום ו׳\",\n    \"שבת\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, d בMMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"לפני #\",\n    future: \"בעוד #\",\n    minute: [\n      \"1 דקה\",\n      \"# דקות\"\n    ],\n    hour: [\n      \"1 שעה\",\n      \"# שעות\"\n    ],\n    day: [\n      \"1 יום\",\n      \"# ימים\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"he\", he);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/he.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/hi.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/hi.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   hi: () => (/* binding */ hi)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst hi = {\n  months: [\n    \"जनवरी\",\n    \"फ़रवरी\",\n    \"मार्च\",\n    \"अप्रैल\",\n    \"मई\",\n    \"जून\",\n    \"जुलाई\",\n    \"अगस्त\",\n    \"सितंबर\",\n    \"अक्टूबर\",\n    \"नवंबर\",\n    \"दिसंबर\"\n  ],\n  monthsShort: [\n    \"जन॰\",\n    \"फ़र॰\",\n    \"मार्च\",\n    \"अप्रैल\",\n    \"मई\",\n    \"जून\",\n    \"जुल॰\",\n    \"अग॰\",\n    \"सित॰\",\n    \"अक्टू॰\",\n    \"नव॰\",\n    \"दिस॰\"\n  ],\n  days: [\n    \"रविवार\",\n    \"सोमवार\",\n    \"मंगलवार\",\n    \"बुधवार\",\n    \"गुरुवार\",\n    \"शुक्रवार\",\n    \"शनिवार\"\n  ],\n  daysShort: [\n    \"रवि\",\n    \"सोम\",\n    \"मंगल\",\n    \"बुध\",\n    \"गुरु\",\n    \"शुक्र\",\n    \"शनि\"\n  ],\n  dayPeriods: [\n    \"am\",\n    \"pm\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE, d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# पहले\",\n    future: \"# में\",\n    minute: [\n      \"1 मिनट\",\n      \"# मिनट\"\n    ],\n    hour: [\n      \"1 घंटा\",\n      \"# घंटे\"\n    ],\n    day: [\n      \"1 दिन\",\n      \"# दिन\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"hi\", hi);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/hi.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/hr.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/hr.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   hr: () => (/* binding */ hr)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst hr = {\n  months: [\n    \"siječanj\",\n    \"veljača\",\n    \"ožujak\",\n    \"travanj\",\n    \"svibanj\",\n    \"lipanj\",\n    \"srpanj\",\n    \"kolovoz\",\n    \"rujan\",\n    \"listopad\",\n    \"studeni\",\n    \"prosinac\"\n  ],\n  monthsShort: [\n    \"sij\",\n    \"velj\",\n    \"ožu\",\n    \"tra\",\n    \"svi\",\n    \"lip\",\n    \"srp\",\n    \"kol\",\n    \"ruj\",\n    \"lis\",\n    \"stu\",\n    \"pro\"\n  ],\n  days: [\n    \"nedjelja\",\n    \"ponedjeljak\",\n    \"utorak\",\n    \"srijeda\",\n    \"četvrtak\",\n    \"petak\",\n    \"subota\"\n  ],\n  daysShort: [\n    \"ned\",\n    \"pon\",\n    \"uto\",\n    \"sri\",\n    \"čet\",\n    \"pet\",\n    \"sub\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd. MM. yyyy.\",\n    longDate: \"EEEE, d. MMMM yyyy.\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"prije #\",\n    future: \"za #\",\n    minute: [\n      \"1 minuta\",\n      \"# minuta\"\n    ],\n    hour: [\n      \"1 sat\",\n      \"# sati\"\n    ],\n    day: [\n      \"1 dan\",\n      \"# dana\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"hr\", hr);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/hr.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/hu.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/hu.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   hu: () => (/* binding */ hu)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst hu = {\n  months: [\n    \"január\",\n    \"február\",\n    \"március\",\n    \"április\",\n    \"május\",\n    \"június\",\n    \"július\",\n    \"augusztus\",\n    \"szeptember\",\n    \"október\",\n    \"november\",\n    \"december\"\n  ],\n  monthsShort: [\n    \"jan.\",\n    \"febr.\",\n    \"márc.\",\n    \"ápr.\",\n    \"máj.\",\n    \"jún.\",\n    \"júl.\",\n    \"aug.\",\n    \"szept.\",\n    \"okt.\",\n    \"nov.\",\n    \"dec.\"\n  ],\n  days: [\n    \"vasárnap\",\n    \"hétfő\",\n    \"kedd\",\n    \"szerda\",\n    \"csütörtök\",\n    \"péntek\",\n    \"szombat\"\n  ],\n  daysShort: [\n    \"V\",\n    \"H\",\n    \"K\",\n    \"Sze\",\n    \"Cs\",\n    \"P\",\n    \"Szo\"\n  ],\n  dayPeriods: [\n    \"de.\",\n    \"du.\"\n  ],\n  patterns: {\n    date: \"yyyy. MM. dd.\",\n    longDate: \"yyyy. MMMM d., EEEE\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# órával ezelőtt\",\n    future: \"# múlva\",\n    minute: [\n      \"1 perc\",\n      \"# perc\"\n    ],\n    hour: [\n      \"1 óra\",\n      \"# óra\"\n    ],\n    day: [\n      \"1 nap\",\n      \"# nap\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"hu\", hu);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/hu.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/id.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/id.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   id: () => (/* binding */ id)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst id = {\n  months: [\n    \"Januari\",\n    \"Februari\",\n    \"Maret\",\n    \"April\",\n    \"Mei\",\n    \"Juni\",\n    \"Juli\",\n    \"Agustus\",\n    \"September\",\n    \"Oktober\",\n    \"November\",\n    \"Desember\"\n  ],\n  monthsShort: [\n    \"Jan\",\n    \"Feb\",\n    \"Mar\",\n    \"Apr\",\n    \"Mei\",\n    \"Jun\",\n    \"Jul\",\n    \"Agu\",\n    \"Sep\",\n    \"Okt\",\n    \"Nov\",\n    \"Des\"\n  ],\n  days: [\n    \"Minggu\",\n    \"Senin\",\n    \"Selasa\",\n    \"Rabu\",\n    \"Kamis\",\n    \"Jumat\",\n    \"Sabtu\"\n  ],\n  daysShort: [\n    \"Min\",\n    \"Sen\",\n    \"Sel\",\n    \"Rab\",\n    \"Kam\",\n    \"Jum\",\n    \"Sab\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE, d MMMM yyyy\",\n    time: \"HH.mm\"\n  },\n  relative: {\n    past: \"# yang lalu\",\n    future: \"dalam #\",\n    minute: [\n      \"1 menit\",\n      \"# menit\"\n    ],\n    hour: [\n      \"1 jam\",\n      \"# jam\"\n    ],\n    day: [\n      \"1 hari\",\n      \"# hari\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"id\", id);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/id.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/index.js"
/*!***************************************************!*\
  !*** ./node_modules/moorline/src/locale/index.js ***!
  \***************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony import */ var _ar_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./ar.js */ \"./node_modules/moorline/src/locale/ar.js\");\n/* harmony import */ var _be_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./be.js */ \"./node_modules/moorline/src/locale/be.js\");\n/* harmony import */ var _bg_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./bg.js */ \"./node_modules/moorline/src/locale/bg.js\");\n/* harmony import */ var _bn_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ./bn.js */ \"./node_modules/moorline/src/locale/bn.js\");\n/* harmony import */ var _ca_js__WEBPACK_IMPORTED_MODULE_4__ = __webpack_require__(/*! ./ca.js */ \"./node_modules/moorline/src/locale/ca.js\");\n/* harmony import */ var _cs_js__WEBPACK_IMPORTED_MODULE_5__ = __webpack_require__(/*! ./cs.js */ \"./node_modules/moorline/src/locale/cs.js\");\n/* harmony import */ var _da_js__WEBPACK_IMPORTED_MODULE_6__ = __webpack_require__(/*! ./da.js */ \"./node_modules/moorline/src/locale/da.js\");\n/* harmony import */ var _de_js__WEBPACK_IMPORTED_MODULE_7__ = __webpack_require__(/*! ./de.js */ \"./node_modules/moorline/src/locale/de.js\");\n/* harmony import */ var _el_js__WEBPACK_IMPORTED_MODULE_8__ = __webpack_require__(/*! ./el.js */ \"./node_modules/moorline/src/locale/el.js\");\n/* harmony import */ var _en_js__WEBPACK_IMPORTED_MODULE_9__ = __webpack_require__(/*! ./en.js */ \"./node_modules/moorline/src/locale/en.js\");\n/* harmony import */ var _es_js__WEBPACK_IMPORTED_MODULE_10__ = __webpack_require__(/*! ./es.js */ \"./node_modules/moorline/src/locale/es.js\");\n/* harmony import */ var _et_js__WEBPACK_IMPORTED_MODULE_11__ = __webpack_require__(/*! ./et.js */ \"./node_modules/moorline/src/locale/et.js\");\n/* harmony import */ var _eu_js__WEBPACK_IMPORTED_MODULE_12__ = __webpack_require__(/*! ./eu.js */ \"./node_modules/moorline/src/locale/eu.js\");\n/* harmony import */ var _fa_js__WEBPACK_IMPORTED_MODULE_13__ = __webpack_require__(/*! ./fa.js */ \"./node_modules/moorline/src/locale/fa.js\");\n/* harmony import */ var _fi_js__WEBPACK_IMPORTED_MODULE_14__ = __webpack_require__(/*! ./fi.js */ \"./node_modules/moorline/src/locale/fi.js\");\n/* harmony import */ var _fr_js__WEBPACK_IMPORTED_MODULE_15__ = __webpack_require__(/*! ./fr.js */ \"./node_modules/moorline/src/locale/fr.js\");\n/* harmony import */ var _ga_js__WEBPACK_IMPORTED_MODULE_16__ = __webpack_require__(/*! ./ga.js */ \"./node_modules/moorline/src/locale/ga.js\");\n/* harmony import */ var _gl_js__WEBPACK_IMPORTED_MODULE_17__ = __webpack_require__(/*! ./gl.js */ \"./node_modules/moorline/src/locale/gl.js\");\n/* harmony import */ var _he_js__WEBPACK_IMPORTED_MODULE_18__ = __webpack_require__(/*! ./he.js */ \"./node_modules/moorline/src/locale/he.js\");\n/* harmony import */ var _hi_js__WEBPACK_IMPORTED_MODULE_19__ = __webpack_require__(/*! ./hi.js */ \"./node_modules/moorline/src/locale/hi.js\");\n/* harmony import */ var _hr_js__WEBPACK_IMPORTED_MODULE_20__ = __webpack_require__(/*! ./hr.js */ \"./node_modules/moorline/src/locale/hr.js\");\n/* harmony import */ var _hu_js__WEBPACK_IMPORTED_MODULE_21__ = __webpack_require__(/*! ./hu.js */ \"./node_modules/moorline/src/locale/hu.js\");\n/* harmony import */ var _id_js__WEBPACK_IMPORTED_MODULE_22__ = __webpack_require__(/*! ./id.js */ \"./node_modules/moorline/src/locale/id.js\");\n/* harmony import */ var _is_js__WEBPACK_IMPORTED_MODULE_23__ = __webpack_require__(/*! ./is.js */ \"./node_modules/moorline/src/locale/is.js\");\n/* harmony import */ var _it_js__WEBPACK_IMPORTED_MODULE_24__ = __webpack_require__(/*! ./it.js */ \"./node_modules/moorline/src/locale/it.js\");\n/* harmony import */ var _ja_js__WEBPACK_IMPORTED_MODULE_25__ = __webpack_require__(/*! ./ja.js */ \"./node_modules/moorline/src/locale/ja.js\");\n/* harmony import */ var _ko_js__WEBPACK_IMPORTED_MODULE_26__ = __webpack_require__(/*! ./ko.js */ \"./node_modules/moorline/src/locale/ko.js\");\n/* harmony import */ var _lt_js__WEBPACK_IMPORTED_MODULE_27__ = __webpack_require__(/*! ./lt.js */ \"./node_modules/moorline/src/locale/lt.js\");\n/* harmony import */ var _lv_js__WEBPACK_IMPORTED_MODULE_28__ = __webpack_require__(/*! ./lv.js */ \"./node_modules/moorline/src/locale/lv.js\");\n/* harmony import */ var _nb_js__WEBPACK_IMPORTED_MODULE_29__ = __webpack_require__(/*! ./nb.js */ \"./node_modules/moorline/src/locale/nb.js\");\n/* harmony import */ var _nl_js__WEBPACK_IMPORTED_MODULE_30__ = __webpack_require__(/*! ./nl.js */ \"./node_modules/moorline/src/locale/nl.js\");\n/* harmony import */ var _pl_js__WEBPACK_IMPORTED_MODULE_31__ = __webpack_require__(/*! ./pl.js */ \"./node_modules/moorline/src/locale/pl.js\");\n/* harmony import */ var _pt_js__WEBPACK_IMPORTED_MODULE_32__ = __webpack_require__(/*! ./pt.js */ \"./node_modules/moorline/src/locale/pt.js\");\n/* harmony import */ var _ro_js__WEBPACK_IMPORTED_MODULE_33__ = __webpack_require__(/*! ./ro.js */ \"./node_modules/moorline/src/locale/ro.js\");\n/* harmony import */ var _ru_js__WEBPACK_IMPORTED_MODULE_34__ = __webpack_require__(/*! ./ru.js */ \"./node_modules/moorline/src/locale/ru.js\");\n/* harmony import */ var _sk_js__WEBPACK_IMPORTED_MODULE_35__ = __webpack_require__(/*! ./sk.js */ \"./node_modules/moorline/src/locale/sk.js\");\n/* harmony import */ var _sl_js__WEBPACK_IMPORTED_MODULE_36__ = __webpack_require__(/*! ./sl.js */ \"./node_modules/moorline/src/locale/sl.js\");\n/* harmony import */ var _sv_js__WEBPACK_IMPORTED_MODULE_37__ = __webpack_require__(/*! ./sv.js */ \"./node_modules/moorline/src/locale/sv.js\");\n/* harmony import */ var _tr_js__WEBPACK_IMPORTED_MODULE_38__ = __webpack_require__(/*! ./tr.js */ \"./node_modules/moorline/src/locale/tr.js\");\n/* harmony import */ var _uk_js__WEBPACK_IMPORTED_MODULE_39__ = __webpack_require__(/*! ./uk.js */ \"./node_modules/moorline/src/locale/uk.js\");\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/index.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/is.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/is.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   is: () => (/* binding */ is)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst is = {\n  months: [\n    \"janúar\",\n    \"febrúar\",\n    \"mars\",\n    \"apríl\",\n    \"maí\",\n    \"júní\",\n    \"júlí\",\n    \"ágúst\",\n    \"september\",\n    \"október\",\n    \"nóvember\",\n    \"desember\"\n  ],\n  monthsShort: [\n    \"jan.\",\n    \"feb.\",\n    \"mar.\",\n    \"apr.\",\n    \"maí\",\n    \"jún.\",\n    \"júl.\",\n    \"ágú.\",\n    \"sep.\",\n    \"okt.\",\n    \"nóv.\",\n    \"des.\"\n  ],\n  days: [\n    \"sunnudagur\",\n    \"mánudagur\",\n    \"þriðjudagur\",\n    \"miðvikudagur\",\n    \"fimmtudagur\",\n    \"föstudagur\",\n    \"laugardagur\"\n  ],\n  daysShort: [\n    \"sun.\",\n    \"mán.\",\n    \"þri.\",\n    \"mið.\",\n    \"fim.\",\n    \"fös.\",\n    \"lau.\"\n  ],\n  dayPeriods: [\n    \"f.h.\",\n    \"e.h.\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, d. MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"fyrir # klukkustundum\",\n    future: \"eftir #\",\n    minute: [\n      \"1 mínúta\",\n      \"# mínútur\"\n    ],\n    hour: [\n      \"1 klukkustund\",\n      \"# klukkustundir\"\n    ],\n    day: [\n      \"1 dagur\",\n      \"# dagar\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"is\", is);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/is.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/it.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/it.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   it: () => (/* binding */ it)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst it = {\n  months: [\n    \"gennaio\",\n    \"febbraio\",\n    \"marzo\",\n    \"aprile\",\n    \"maggio\",\n    \"giugno\",\n    \"luglio\",\n    \"agosto\",\n    \"settembre\",\n    \"ottobre\",\n    \"novembre\",\n    \"dicembre\"\n  ],\n  monthsShort: [\n    \"gen\",\n    \"feb\",\n    \"mar\",\n    \"apr\",\n    \"mag\",\n    \"giu\",\n    \"lug\",\n    \"ago\",\n    \"set\",\n    \"ott\",\n    \"nov\",\n    \"dic\"\n  ],\n  days: [\n    \"domenica\",\n    \"lunedì\",\n    \"martedì\",\n    \"mercoledì\",\n    \"giovedì\",\n    \"venerdì\",\n    \"sabato\"\n  ],\n  daysShort: [\n    \"dom\",\n    \"lun\",\n    \"mar\",\n    \"mer\",\n    \"gio\",\n    \"ven\",\n    \"sab\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# fa\",\n    future: \"tra #\",\n    minute: [\n      \"1 minuto\",\n      \"# minuti\"\n    ],\n    hour: [\n      \"1 ora\",\n      \"# ore\"\n    ],\n    day: [\n      \"1 giorno\",\n      \"# giorni\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"it\", it);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/it.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/ja.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/ja.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   ja: () => (/* binding */ ja)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst ja = {\n  months: [\n    \"1月\",\n    \"2月\",\n    \"3月\",\n    \"4月\",\n    \"5月\",\n    \"6月\",\n    \"7月\",\n    \"8月\",\n    \"9月\",\n    \"10月\",\n    \"11月\",\n    \"12月\"\n  ],\n  monthsShort: [\n    \"1月\",\n    \"2月\",\n    \"3月\",\n    \"4月\",\n    \"5月\",\n    \"6月\",\n    \"7月\",\n    \"8月\",\n    \"9月\",\n    \"10月\",\n    \"11月\",\n    \"12月\"\n  ],\n  days: [\n    \"日曜日\",\n    \"月曜日\",\n    \"火曜日\",\n    \"水曜日\",\n    \"木曜日\",\n    \"金曜日\",\n    \"土曜日\"\n  ],\n  daysShort: [\n    \"日\",\n    \"月\",\n    \"火\",\n    \"水\",\n    \"木\",\n    \"金\",\n    \"土\"\n  ],\n  dayPeriods: [\n    \"午前\",\n    \"午後\"\n  ],\n  patterns: {\n    date: \"yyyy/MM/dd\",\n    longDate: \"yyyy年MMMM月d日EEEE\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"#前\",\n    future: \"#後\",\n    minute: [\n      \"1 分\",\n      \"# 分\"\n    ],\n    hour: [\n      \"1 時間\",\n      \"# 時間\"\n    ],\n    day: [\n      \"1 日\",\n      \"# 日\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"ja\", ja);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/ja.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/ko.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/ko.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   ko: () => (/* binding */ ko)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst ko = {\n  months: [\n    \"1월\",\n    \"2월\",\n    \"3월\",\n    \"4월\",\n    \"5월\",\n    \"6월\",\n    \"7월\",\n    \"8월\",\n    \"9월\",\n    \"10월\",\n    \"11월\",\n    \"12월\"\n  ],\n  monthsShort: [\n    \"1월\",\n    \"2월\",\n    \"3월\",\n    \"4월\",\n    \"5월\",\n    \"6월\",\n    \"7월\",\n    \"8월\",\n    \"9월\",\n    \"10월\",\n    \"11월\",\n    \"12월\"\n  ],\n  days: [\n    \"일요일\",\n    \"월요일\",\n    \"화요일\",\n    \"수요일\",\n    \"목요일\",\n    \"금요일\",\n    \"토요일\"\n  ],\n  daysShort: [\n    \"일\",\n    \"월\",\n    \"화\",\n    \"수\",\n    \"목\",\n    \"금\",\n    \"토\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"yyyy. MM. dd.\",\n    longDate: \"yyyy년 MMMM d일 EEEE\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# 전\",\n    future: \"# 후\",\n    minute: [\n      \"1분\",\n      \"#분\"\n    ],\n    hour: [\n      \"1시간\",\n      \"#시간\"\n    ],\n    day: [\n      \"1일\",\n      \"#일\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"ko\", ko);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/ko.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/lt.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/lt.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   lt: () => (/* binding */ lt)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst lt = {\n  months: [\n    \"sausis\",\n    \"vasaris\",\n    \"kovas\",\n    \"balandis\",\n    \"gegužė\",\n    \"birželis\",\n    \"liepa\",\n    \"rugpjūtis\",\n    \"rugsėjis\",\n    \"spalis\",\n    \"lapkritis\",\n    \"gruodis\"\n  ],\n  monthsShort: [\n    \"01\",\n    \"02\",\n    \"03\",\n    \"04\",\n    \"05\",\n    \"06\",\n    \"07\",\n    \"08\",\n    \"09\",\n    \"10\",\n    \"11\",\n    \"12\"\n  ],\n  days: [\n    \"sekmadienis\",\n    \"pirmadienis\",\n    \"antradienis\",\n    \"trečiadienis\",\n    \"ketvirtadienis\",\n    \"penktadienis\",\n    \"šeštadienis\"\n  ],\n  daysShort: [\n    \"sk\",\n    \"pr\",\n    \"an\",\n    \"tr\",\n    \"kt\",\n    \"pn\",\n    \"št\"\n  ],\n  dayPeriods: [\n    \"priešpiet\",\n    \"popiet\"\n  ],\n  patterns: {\n    date: \"yyyy-MM-dd\",\n    longDate: \"yyyy' m. 'MMMM d' d., 'EEEE\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"prieš # valandas\",\n    future: \"po # valandų\",\n    minute: [\n      \"1 minutė\",\n      \"# minutės\"\n    ],\n    hour: [\n      \"1 valanda\",\n      \"# valandos\"\n    ],\n    day: [\n      \"1 diena\",\n      \"# dienos\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"lt\", lt);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/lt.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/lv.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/lv.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   lv: () => (/* binding */ lv)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst lv = {\n  months: [\n    \"janvāris\",\n    \"februāris\",\n    \"marts\",\n    \"aprīlis\",\n    \"maijs\",\n    \"jūnijs\",\n    \"jūlijs\",\n    \"augusts\",\n    \"septembris\",\n    \"oktobris\",\n    \"novembris\",\n    \"decembris\"\n  ],\n  monthsShort: [\n    \"janv.\",\n    \"febr.\",\n    \"marts\",\n    \"apr.\",\n    \"maijs\",\n    \"jūn.\",\n    \"jūl.\",\n    \"aug.\",\n    \"sept.\",\n    \"okt.\",\n    \"nov.\",\n    \"dec.\"\n  ],\n  days: [\n    \"Svētdiena\",\n    \"Pirmdiena\",\n    \"Otrdiena\",\n    \"Trešdiena\",\n    \"Ceturtdiena\",\n    \"Piektdiena\",\n    \"Sestdiena\"\n  ],\n  daysShort: [\n    \"Svētd.\",\n    \"Pirmd.\",\n    \"Otrd.\",\n    \"Trešd.\",\n    \"Ceturtd.\",\n    \"Piektd.\",\n    \"Sestd.\"\n  ],\n  dayPeriods: [\n    \"priekšp.\",\n    \"pēcp.\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, yyyy'. gada 'd. MMMM\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"pirms # stundām\",\n    future: \"pēc # stundām\",\n    minute: [\n      \"1 minūte\",\n      \"# minūtes\"\n    ],\n    hour: [\n      \"1 stunda\",\n      \"# stundas\"\n    ],\n    day: [\n      \"1 diena\",\n      \"# dienas\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"lv\", lv);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/lv.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/nb.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/nb.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   nb: () => (/* binding */ nb)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst nb = {\n  months: [\n    \"januar\",\n    \"februar\",\n    \"mars\",\n    \"april\",\n    \"mai\",\n    \"juni\",\n    \"juli\",\n    \"august\",\n    \"september\",\n    \"oktober\",\n    \"november\",\n    \"desember\"\n  ],\n  monthsShort: [\n    \"jan\",\n    \"feb\",\n    \"mar\",\n    \"apr\",\n    \"mai\",\n    \"jun\",\n    \"jul\",\n    \"aug\",\n    \"sep\",\n    \"okt\",\n    \"nov\",\n    \"des\"\n  ],\n  days: [\n    \"søndag\",\n    \"mandag\",\n    \"tirsdag\",\n    \"onsdag\",\n    \"torsdag\",\n    \"fredag\",\n    \"lørdag\"\n  ],\n  daysShort: [\n    \"søn.\",\n    \"man.\",\n    \"tir.\",\n    \"ons.\",\n    \"tor.\",\n    \"fre.\",\n    \"lør.\"\n  ],\n  dayPeriods: [\n    \"a.m.\",\n    \"p.m.\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE d. MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"for # siden\",\n    future: \"om #\",\n    minute: [\n      \"1 minutt\",\n      \"# minutter\"\n    ],\n    hour: [\n      \"1 time\",\n      \"# timer\"\n    ],\n    day: [\n      \"1 døgn\",\n      \"# døgn\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"nb\", nb);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/nb.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/nl.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/nl.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   nl: () => (/* binding */ nl)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst nl = {\n  months: [\n    \"januari\",\n    \"februari\",\n    \"maart\",\n    \"april\",\n    \"mei\",\n    \"juni\",\n    \"juli\",\n    \"augustus\",\n    \"september\",\n    \"oktober\",\n    \"november\",\n    \"december\"\n  ],\n  monthsShort: [\n    \"jan\",\n    \"feb\",\n    \"mrt\",\n    \"apr\",\n    \"mei\",\n    \"jun\",\n    \"jul\",\n    \"aug\",\n    \"sep\",\n    \"okt\",\n    \"nov\",\n    \"dec\"\n  ],\n  days: [\n    \"zondag\",\n    \"maandag\",\n    \"dinsdag\",\n    \"woensdag\",\n    \"donderdag\",\n    \"vrijdag\",\n    \"zaterdag\"\n  ],\n  daysShort: [\n    \"zo\",\n    \"ma\",\n    \"di\",\n    \"wo\",\n    \"do\",\n    \"vr\",\n    \"za\"\n  ],\n  dayPeriods: [\n    \"a.m.\",\n    \"p.m.\"\n  ],\n  patterns: {\n    date: \"dd-MM-yyyy\",\n    longDate: \"EEEE d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# geleden\",\n    future: \"over #\",\n    minute: [\n      \"1 minuut\",\n      \"# minuten\"\n    ],\n    hour: [\n      \"1 uur\",\n      \"# uur\"\n    ],\n    day: [\n      \"1 dag\",\n      \"# dagen\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"nl\", nl);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/nl.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/pl.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/pl.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   pl: () => (/* binding */ pl)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst pl = {\n  months: [\n    \"styczeń\",\n    \"luty\",\n    \"marzec\",\n    \"kwiecień\",\n    \"maj\",\n    \"czerwiec\",\n    \"lipiec\",\n    \"sierpień\",\n    \"wrzesień\",\n    \"październik\",\n    \"listopad\",\n    \"grudzień\"\n  ],\n  monthsShort: [\n    \"sty\",\n    \"lut\",\n    \"mar\",\n    \"kwi\",\n    \"maj\",\n    \"cze\",\n    \"lip\",\n    \"sie\",\n    \"wrz\",\n    \"paź\",\n    \"lis\",\n    \"gru\"\n  ],\n  days: [\n    \"niedziela\",\n    \"poniedziałek\",\n    \"wtorek\",\n    \"środa\",\n    \"czwartek\",\n    \"piątek\",\n    \"sobota\"\n  ],\n  daysShort: [\n    \"niedz.\",\n    \"pon.\",\n    \"wt.\",\n    \"śr.\",\n    \"czw.\",\n    \"pt.\",\n    \"sob.\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# temu\",\n    future: \"za #\",\n    minute: [\n      \"1 minuta\",\n      \"# minut\"\n    ],\n    hour: [\n      \"1 godzina\",\n      \"# godzin\"\n    ],\n    day: [\n      \"1 dzień\",\n      \"# dni\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"pl\", pl);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/pl.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/pt.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/pt.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   pt: () => (/* binding */ pt)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst pt = {\n  months: [\n    \"janeiro\",\n    \"fevereiro\",\n    \"março\",\n    \"abril\",\n    \"maio\",\n    \"junho\",\n    \"julho\",\n    \"agosto\",\n    \"setembro\",\n    \"outubro\",\n    \"novembro\",\n    \"dezembro\"\n  ],\n  monthsShort: [\n    \"jan.\",\n    \"fev.\",\n    \"mar.\",\n    \"abr.\",\n    \"mai.\",\n    \"jun.\",\n    \"jul.\",\n    \"ago.\",\n    \"set.\",\n    \"out.\",\n    \"nov.\",\n    \"dez.\"\n  ],\n  days: [\n    \"domingo\",\n    \"segunda-feira\",\n    \"terça-feira\",\n    \"quarta-feira\",\n    \"quinta-feira\",\n    \"sexta-feira\",\n    \"sábado\"\n  ],\n  daysShort: [\n    \"dom.\",\n    \"seg.\",\n    \"ter.\",\n    \"qua.\",\n    \"qui.\",\n    \"sex.\",\n    \"sáb.\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd/MM/yyyy\",\n    longDate: \"EEEE, d' de 'MMMM' de 'yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"há #\",\n    future: \"em #\",\n    minute: [\n      \"1 minuto\",\n      \"# minutos\"\n    ],\n    hour: [\n      \"1 hora\",\n      \"# horas\"\n    ],\n    day: [\n      \"1 dia\",\n      \"# dias\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"pt\", pt);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/pt.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/ro.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/ro.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   ro: () => (/* binding */ ro)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst ro = {\n  months: [\n    \"ianuarie\",\n    \"februarie\",\n    \"martie\",\n    \"aprilie\",\n    \"mai\",\n    \"iunie\",\n    \"iulie\",\n    \"august\",\n    \"septembrie\",\n    \"octombrie\",\n    \"noiembrie\",\n    \"decembrie\"\n  ],\n  monthsShort: [\n    \"ian.\",\n    \"feb.\",\n    \"mar.\",\n    \"apr.\",\n    \"mai\",\n    \"iun.\",\n    \"iul.\",\n    \"aug.\",\n    \"sept.\",\n    \"oct.\",\n    \"nov.\",\n    \"dec.\"\n  ],\n  days: [\n    \"duminică\",\n    \"luni\",\n    \"marți\",\n    \"miercuri\",\n    \"joi\",\n    \"vineri\",\n    \"sâmbătă\"\n  ],\n  daysShort: [\n    \"dum.\",\n    \"lun.\",\n    \"mar.\",\n    \"mie.\",\n    \"joi\",\n    \"vin.\",\n    \"sâm.\"\n  ],\n  dayPeriods: [\n    \"a.m.\",\n    \"p.m.\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"acum #\",\n    future: \"peste #\",\n    minute: [\n      \"1 minut\",\n      \"# minute\"\n    ],\n    hour: [\n      \"1 oră\",\n      \"# ore\"\n    ],\n    day: [\n      \"1 zi\",\n      \"# zile\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"ro\", ro);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/ro.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/ru.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/ru.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   ru: () => (/* binding */ ru)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst ru = {\n  months: [\n    \"январь\",\n    \"февраль\",\n    \"март\",\n    \"апрель\",\n    \"май\",\n    \"июнь\",\n    \"июль\",\n    \"август\",\n    \"сентябрь\",\n    \"октябрь\",\n    \"ноябрь\",\n    \"декабрь\"\n  ],\n  monthsShort: [\n    \"янв.\",\n    \"февр.\",\n    \"март\",\n    \"апр.\",\n    \"май\",\n    \"июнь\",\n    \"июль\",\n    \"авг.\",\n    \"сент.\",\n    \"окт.\",\n    \"нояб.\",\n    \"дек.\"\n  ],\n  days: [\n    \"воскресенье\",\n    \"понедельник\",\n    \"вторник\",\n    \"среда\",\n    \"четверг\",\n    \"пятница\",\n    \"суббота\"\n  ],\n  daysShort: [\n    \"вс\",\n    \"пн\",\n    \"вт\",\n    \"ср\",\n    \"чт\",\n    \"пт\",\n    \"сб\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, d MMMM yyyy г.\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# назад\",\n    future: \"через #\",\n    minute: [\n      \"1 минута\",\n      \"# минут\"\n    ],\n    hour: [\n      \"1 час\",\n      \"# часов\"\n    ],\n    day: [\n      \"1 день\",\n      \"# дней\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"ru\", ru);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/ru.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/sk.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/sk.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   sk: () => (/* binding */ sk)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst sk = {\n  months: [\n    \"január\",\n    \"február\",\n    \"marec\",\n    \"apríl\",\n    \"máj\",\n    \"jún\",\n    \"júl\",\n    \"august\",\n    \"september\",\n    \"október\",\n    \"november\",\n    \"december\"\n  ],\n  monthsShort: [\n    \"jan\",\n    \"feb\",\n    \"mar\",\n    \"apr\",\n    \"máj\",\n    \"jún\",\n    \"júl\",\n    \"aug\",\n    \"sep\",\n    \"okt\",\n    \"nov\",\n    \"dec\"\n  ],\n  days: [\n    \"nedeľa\",\n    \"pondelok\",\n    \"utorok\",\n    \"streda\",\n    \"štvrtok\",\n    \"piatok\",\n    \"sobota\"\n  ],\n  daysShort: [\n    \"ne\",\n    \"po\",\n    \"ut\",\n    \"st\",\n    \"št\",\n    \"pi\",\n    \"so\"\n  ],\n  dayPeriods: [\n    \"AM\",\n    \"PM\"\n  ],\n  patterns: {\n    date: \"dd. MM. yyyy\",\n    longDate: \"EEEE d. MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"pred # hodinami\",\n    future: \"o #\",\n    minute: [\n      \"1 minúta\",\n      \"# minút\"\n    ],\n    hour: [\n      \"1 hodina\",\n      \"# hodín\"\n    ],\n    day: [\n      \"1 deň\",\n      \"# dní\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"sk\", sk);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/sk.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/sl.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/sl.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   sl: () => (/* binding */ sl)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst sl = {\n  months: [\n    \"januar\",\n    \"februar\",\n    \"marec\",\n    \"april\",\n    \"maj\",\n    \"junij\",\n    \"julij\",\n    \"avgust\",\n    \"september\",\n    \"oktober\",\n    \"november\",\n    \"december\"\n  ],\n  monthsShort: [\n    \"jan.\",\n    \"feb.\",\n    \"mar.\",\n    \"apr.\",\n    \"maj\",\n    \"jun.\",\n    \"jul.\",\n    \"avg.\",\n    \"sep.\",\n    \"okt.\",\n    \"nov.\",\n    \"dec.\"\n  ],\n  days: [\n    \"nedelja\",\n    \"ponedeljek\",\n    \"torek\",\n    \"sreda\",\n    \"četrtek\",\n    \"petek\",\n    \"sobota\"\n  ],\n  daysShort: [\n    \"ned.\",\n    \"pon.\",\n    \"tor.\",\n    \"sre.\",\n    \"čet.\",\n    \"pet.\",\n    \"sob.\"\n  ],\n  dayPeriods: [\n    \"dop.\",\n    \"pop.\"\n  ],\n  patterns: {\n    date: \"dd. MM. yyyy\",\n    longDate: \"EEEE, d. MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"pred #ami\",\n    future: \"čez #\",\n    minute: [\n      \"1 minuta\",\n      \"# minut\"\n    ],\n    hour: [\n      \"1 ura\",\n      \"# ur\"\n    ],\n    day: [\n      \"1 dan\",\n      \"# dni\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"sl\", sl);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/sl.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/sv.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/sv.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   sv: () => (/* binding */ sv)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst sv = {\n  months: [\n    \"januari\",\n    \"februari\",\n    \"mars\",\n    \"april\",\n    \"maj\",\n    \"juni\",\n    \"juli\",\n    \"augusti\",\n    \"september\",\n    \"oktober\",\n    \"november\",\n    \"december\"\n  ],\n  monthsShort: [\n    \"jan.\",\n    \"feb.\",\n    \"mars\",\n    \"apr.\",\n    \"maj\",\n    \"juni\",\n    \"juli\",\n    \"aug.\",\n    \"sep.\",\n    \"okt.\",\n    \"nov.\",\n    \"dec.\"\n  ],\n  days: [\n    \"söndag\",\n    \"måndag\",\n    \"tisdag\",\n    \"onsdag\",\n    \"torsdag\",\n    \"fredag\",\n    \"lördag\"\n  ],\n  daysShort: [\n    \"sön\",\n    \"mån\",\n    \"tis\",\n    \"ons\",\n    \"tors\",\n    \"fre\",\n    \"lör\"\n  ],\n  dayPeriods: [\n    \"fm\",\n    \"em\"\n  ],\n  patterns: {\n    date: \"yyyy-MM-dd\",\n    longDate: \"EEEE d MMMM yyyy\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"för # sedan\",\n    future: \"om #\",\n    minute: [\n      \"1 minut\",\n      \"# minuter\"\n    ],\n    hour: [\n      \"1 timme\",\n      \"# timmar\"\n    ],\n    day: [\n      \"1 dygn\",\n      \"# dygn\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"sv\", sv);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/sv.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/tr.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/tr.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   tr: () => (/* binding */ tr)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst tr = {\n  months: [\n    \"Ocak\",\n    \"Şubat\",\n    \"Mart\",\n    \"Nisan\",\n    \"Mayıs\",\n    \"Haziran\",\n    \"Temmuz\",\n    \"Ağustos\",\n    \"Eylül\",\n    \"Ekim\",\n    \"Kasım\",\n    \"Aralık\"\n  ],\n  monthsShort: [\n    \"Oca\",\n    \"Şub\",\n    \"Mar\",\n    \"Nis\",\n    \"May\",\n    \"Haz\",\n    \"Tem\",\n    \"Ağu\",\n    \"Eyl\",\n    \"Eki\",\n    \"Kas\",\n    \"Ara\"\n  ],\n  days: [\n    \"Pazar\",\n    \"Pazartesi\",\n    \"Salı\",\n    \"Çarşamba\",\n    \"Perşembe\",\n    \"Cuma\",\n    \"Cumartesi\"\n  ],\n  daysShort: [\n    \"Paz\",\n    \"Pzt\",\n    \"Sal\",\n    \"Çar\",\n    \"Per\",\n    \"Cum\",\n    \"Cmt\"\n  ],\n  dayPeriods: [\n    \"ÖÖ\",\n    \"ÖS\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"d MMMM yyyy EEEE\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# önce\",\n    future: \"# sonra\",\n    minute: [\n      \"1 dakika\",\n      \"# dakika\"\n    ],\n    hour: [\n      \"1 saat\",\n      \"# saat\"\n    ],\n    day: [\n      \"1 gün\",\n      \"# gün\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"tr\", tr);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/tr.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/locale/uk.js"
/*!************************************************!*\
  !*** ./node_modules/moorline/src/locale/uk.js ***!
  \************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   uk: () => (/* binding */ uk)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst uk = {\n  months: [\n    \"січень\",\n    \"лютий\",\n    \"березень\",\n    \"квітень\",\n    \"травень\",\n    \"червень\",\n    \"липень\",\n    \"серпень\",\n    \"вересень\",\n    \"жовтень\",\n    \"листопад\",\n    \"грудень\"\n  ],\n  monthsShort: [\n    \"січ.\",\n    \"лют.\",\n    \"бер.\",\n    \"квіт.\",\n    \"трав.\",\n    \"черв.\",\n    \"лип.\",\n    \"серп.\",\n    \"вер.\",\n    \"жовт.\",\n    \"лист.\",\n    \"груд.\"\n  ],\n  days: [\n    \"неділя\",\n    \"понеділок\",\n    \"вівторок\",\n    \"середа\",\n    \"четвер\",\n    \"пʼятниця\",\n    \"субота\"\n  ],\n  daysShort: [\n    \"нд\",\n    \"пн\",\n    \"вт\",\n    \"ср\",\n    \"чт\",\n    \"пт\",\n    \"сб\"\n  ],\n  dayPeriods: [\n    \"дп\",\n    \"пп\"\n  ],\n  patterns: {\n    date: \"dd.MM.yyyy\",\n    longDate: \"EEEE, d MMMM yyyy р.\",\n    time: \"HH:mm\"\n  },\n  relative: {\n    past: \"# тому\",\n    future: \"через #\",\n    minute: [\n      \"1 хвилина\",\n      \"# хвилин\"\n    ],\n    hour: [\n      \"1 година\",\n      \"# годин\"\n    ],\n    day: [\n      \"1 день\",\n      \"# днів\"\n    ]\n  }\n};\n(0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.register)(\"uk\", uk);\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/locale/uk.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/parse.js"
/*!********************************************!*\
  !*** ./node_modules/moorline/src/parse.js ***!
  \********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   parse: () => (/* binding */ parse)\n/* harmony export */ });\nconst ISO = /^(\\d{4})-(\\d\\d)-(\\d\\d)(?:[T ](\\d\\d):(\\d\\d)(?::(\\d\\d))?)?(Z|[+-]\\d\\d:?\\d\\d)?$/;\nfunction parse(text) {\n  const match = ISO.exec(text.trim());\n  if (!match) throw new RangeError(`moorline: cannot read ${text}`);\n  const [, year, month, day, hour = 0, minute = 0, second = 0, zone] = match;\n  if (!zone) return new Date(year, month - 1, day, hour, minute, second);\n  const utc = Date.UTC(year, month - 1, day, hour, minute, second);\n  if (zone === \"Z\") return new Date(utc);\n  const sign = zone[0] === \"-\" ? -1 : 1;\n  return new Date(utc - sign * (Number(zone.slice(1, 3)) * 60 + Number(zone.slice(-2))) * 60000);\n}\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/parse.js?\n}");

/***/ },

/***/ "./node_modules/moorline/src/relative.js"
/*!***********************************************!*\
  !*** ./node_modules/moorline/src/relative.js ***!
  \***********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   relative: () => (/* binding */ relative)\n/* harmony export */ });\n/* harmony import */ var _languages_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./languages.js */ \"./node_modules/moorline/src/languages.js\");\n\nconst STEPS = [[\"minute\", 60000, 60], [\"hour\", 3600000, 24], [\"day\", 86400000, 30]];\nfunction relative(date, now = new Date(), name = \"en\") {\n  const words = (0,_languages_js__WEBPACK_IMPORTED_MODULE_0__.language)(name).relative;\n  const distance = date - now;\n  for (const [unit, size, most] of STEPS) {\n    const count = Math.round(Math.abs(distance) / size);\n    if (count < most) {\n      const form = count === 1 ? words[unit][0] : words[unit][1].replace(\"#\", count);\n      return (distance < 0 ? words.past : words.future).replace(\"#\", form);\n    }\n  }\n  return new Intl.DateTimeFormat(name).format(date);\n}\n\n\n//# sourceURL=webpack:///./node_modules/moorline/src/relative.js?\n}");

/***/ },

/***/ "./node_modules/sounding-math/interpolate.js"
/*!***************************************************!*\
  !*** ./node_modules/sounding-math/interpolate.js ***!
  \***************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   inverseLerp: () => (/* binding */ inverseLerp),\n/* harmony export */   lerp: () => (/* binding */ lerp),\n/* harmony export */   smoothstep: () => (/* binding */ smoothstep)\n/* harmony export */ });\nconst lerp = (a, b, t) => a + (b - a) * t;\nconst inverseLerp = (a, b, value) => (a === b ? 0 : (value - a) / (b - a));\nfunction smoothstep(low, high, value) {\n  const t = Math.min(1, Math.max(0, inverseLerp(low, high, value)));\n  return t * t * (3 - 2 * t);\n}\n\n\n//# sourceURL=webpack:///./node_modules/sounding-math/interpolate.js?\n}");

/***/ },

/***/ "./node_modules/windlass-i18n/compile.js"
/*!***********************************************!*\
  !*** ./node_modules/windlass-i18n/compile.js ***!
  \***********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   compile: () => (/* binding */ compile)\n/* harmony export */ });\n/** Compiles `{name}` and `{count, plural, one {…} other {…}}` into a function of the values. */\nfunction compile(text, rule) {\n  const parts = [];\n  let at = 0;\n  while (at < text.length) {\n    const open = text.indexOf(\"{\", at);\n    if (open < 0) {\n      parts.push(text.slice(at));\n      break;\n    }\n    if (open > at) parts.push(text.slice(at, open));\n    const close = closing(text, open);\n    parts.push(hole(text.slice(open + 1, close), rule));\n    at = close + 1;\n  }\n  return (values) => parts.map((part) => (typeof part === \"string\" ? part : part(values))).join(\"\");\n}\nfunction closing(text, open) {\n  let depth = 0;\n  for (let at = open; at < text.length; at++) {\n    if (text[at] === \"{\") depth++;\n    else if (text[at] === \"}\" && --depth === 0) return at;\n  }\n  throw new SyntaxError(`unclosed brace in \"${text}\"`);\n}\nfunction hole(body, rule) {\n  const [name, kind, ...rest] = body.split(\",\").map((part) => part.trim());\n  if (kind !== \"plural\") return (values) => String(values[name] ?? \"\");\n  const forms = {};\n  const source = rest.join(\",\");\n  for (const match of source.matchAll(/(=?\\w+)\\s*\\{([^}]*)\\}/g)) forms[match[1]] = match[2];\n  return (values) => {\n    const count = Number(values[name]);\n    const form = forms[`=${count}`] ?? forms[rule(count)] ?? forms.other ?? \"\";\n    return form.replaceAll(\"#\", String(count));\n  };\n}\n\n\n//# sourceURL=webpack:///./node_modules/windlass-i18n/compile.js?\n}");

/***/ },

/***/ "./node_modules/windlass-i18n/direction.js"
/*!*************************************************!*\
  !*** ./node_modules/windlass-i18n/direction.js ***!
  \*************************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   direction: () => (/* binding */ direction)\n/* harmony export */ });\nconst RIGHT_TO_LEFT = new Set([\"ar\", \"fa\", \"he\", \"ur\", \"yi\", \"ps\", \"sd\"]);\nconst direction = (locale) => (RIGHT_TO_LEFT.has(locale.split(\"-\")[0]) ? \"rtl\" : \"ltr\");\n\n\n//# sourceURL=webpack:///./node_modules/windlass-i18n/direction.js?\n}");

/***/ },

/***/ "./node_modules/windlass-i18n/index.js"
/*!*********************************************!*\
  !*** ./node_modules/windlass-i18n/index.js ***!
  \*********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   direction: () => (/* reexport safe */ _direction_js__WEBPACK_IMPORTED_MODULE_2__.direction),\n/* harmony export */   translator: () => (/* binding */ translator)\n/* harmony export */ });\n/* harmony import */ var _compile_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./compile.js */ \"./node_modules/windlass-i18n/compile.js\");\n/* harmony import */ var _plural_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./plural.js */ \"./node_modules/windlass-i18n/plural.js\");\n/* harmony import */ var _direction_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./direction.js */ \"./node_modules/windlass-i18n/direction.js\");\n\n\nfunction translator(locale, messages) {\n  const compiled = new Map();\n  const rule = (0,_plural_js__WEBPACK_IMPORTED_MODULE_1__.plural)(locale);\n  return function t(key, values = {}) {\n    if (!(key in messages)) return key;\n    if (!compiled.has(key)) compiled.set(key, (0,_compile_js__WEBPACK_IMPORTED_MODULE_0__.compile)(messages[key], rule));\n    return compiled.get(key)(values);\n  };\n}\n\n\n\n//# sourceURL=webpack:///./node_modules/windlass-i18n/index.js?\n}");

/***/ },

/***/ "./node_modules/windlass-i18n/plural.js"
/*!**********************************************!*\
  !*** ./node_modules/windlass-i18n/plural.js ***!
  \**********************************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   plural: () => (/* binding */ plural)\n/* harmony export */ });\nconst cache = new Map();\nfunction plural(locale) {\n  if (!cache.has(locale)) cache.set(locale, new Intl.PluralRules(locale));\n  return (count) => cache.get(locale).select(count);\n}\n\n\n//# sourceURL=webpack:///./node_modules/windlass-i18n/plural.js?\n}");

/***/ },

/***/ "./src/crew/handover.js"
/*!******************************!*\
  !*** ./src/crew/handover.js ***!
  \******************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   handover: () => (/* binding */ handover)\n/* harmony export */ });\n/* harmony import */ var _shared_format_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../shared/format.js */ \"./src/shared/format.js\");\n/* harmony import */ var _shared_lists_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ../shared/lists.js */ \"./src/shared/lists.js\");\n/* harmony import */ var _shared_ui_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ../shared/ui.js */ \"./src/shared/ui.js\");\n\n\n\nconst KEY = \"kelpwick-handover\";\nfunction handover() {\n  const saved = JSON.parse(localStorage.getItem(KEY) ?? \"null\");\n  const note = (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_2__.h)(\"p\", { class: \"note\" }, saved ? (0,_shared_format_js__WEBPACK_IMPORTED_MODULE_0__.ago)(new Date(saved.at)) : \"\");\n  const keep = (0,_shared_lists_js__WEBPACK_IMPORTED_MODULE_1__.afterQuiet)(() => {\n    localStorage.setItem(KEY, JSON.stringify({ at: Date.now(), text: area.value }));\n    note.textContent = (0,_shared_format_js__WEBPACK_IMPORTED_MODULE_0__.ago)(new Date());\n  }, 800);\n  const area = (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_2__.h)(\"textarea\", { rows: 6, value: saved?.text ?? \"\", onInput: keep });\n  return (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_2__.card)(\"Handover\", area, note);\n}\n\n\n//# sourceURL=webpack:///./src/crew/handover.js?\n}");

/***/ },

/***/ "./src/crew/main.js"
/*!**************************!*\
  !*** ./src/crew/main.js ***!
  \**************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony import */ var _crew_css__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./crew.css */ \"./src/crew/crew.css\");\n/* harmony import */ var _shared_api_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ../shared/api.js */ \"./src/shared/api.js\");\n/* harmony import */ var _shared_i18n_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ../shared/i18n.js */ \"./src/shared/i18n.js\");\n/* harmony import */ var _shared_page_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ../shared/page.js */ \"./src/shared/page.js\");\n/* harmony import */ var _shared_ui_js__WEBPACK_IMPORTED_MODULE_4__ = __webpack_require__(/*! ../shared/ui.js */ \"./src/shared/ui.js\");\n/* harmony import */ var _handover_js__WEBPACK_IMPORTED_MODULE_5__ = __webpack_require__(/*! ./handover.js */ \"./src/crew/handover.js\");\n/* harmony import */ var _rest_table_js__WEBPACK_IMPORTED_MODULE_6__ = __webpack_require__(/*! ./rest-table.js */ \"./src/crew/rest-table.js\");\n/* harmony import */ var _workload_plot_js__WEBPACK_IMPORTED_MODULE_7__ = __webpack_require__(/*! ./workload-plot.js */ \"./src/crew/workload-plot.js\");\n/* harmony import */ var _weather_card_js__WEBPACK_IMPORTED_MODULE_8__ = __webpack_require__(/*! ./weather-card.js */ \"./src/crew/weather-card.js\");\n/* harmony import */ var _week_js__WEBPACK_IMPORTED_MODULE_9__ = __webpack_require__(/*! ./week.js */ \"./src/crew/week.js\");\n\n\n\n\n\n\n\n\n\n\nconst body = (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_4__.h)(\"div\", {}, (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_4__.spinner)());\n(0,_shared_page_js__WEBPACK_IMPORTED_MODULE_3__.page)(\"crew\", (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_4__.h)(\"h1\", {}, (0,_shared_i18n_js__WEBPACK_IMPORTED_MODULE_2__.t)(\"crew.title\")), (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_4__.h)(\"div\", { class: \"columns\" }, body, (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_4__.h)(\"aside\", {}, (0,_weather_card_js__WEBPACK_IMPORTED_MODULE_8__.weatherCard)(\"kelpwick\"), (0,_handover_js__WEBPACK_IMPORTED_MODULE_5__.handover)())));\n(0,_shared_api_js__WEBPACK_IMPORTED_MODULE_1__.roster)((0,_week_js__WEBPACK_IMPORTED_MODULE_9__.weekOf)(new Date())).then((week) => {\n  body.replaceChildren((0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_4__.tabs)([\n    { label: \"Watches\", body: () => (0,_workload_plot_js__WEBPACK_IMPORTED_MODULE_7__.workloadPlot)(week) },\n    { label: \"Rest\", body: () => (0,_rest_table_js__WEBPACK_IMPORTED_MODULE_6__.restTable)(week) },\n  ]));\n});\n\n\n//# sourceURL=webpack:///./src/crew/main.js?\n}");

/***/ },

/***/ "./src/crew/rest-hours.js"
/*!********************************!*\
  !*** ./src/crew/rest-hours.js ***!
  \********************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   restHours: () => (/* binding */ restHours)\n/* harmony export */ });\nconst NEEDED = 11;\n/** The longest rest in any 24 hours of the week, per person. */\nfunction restHours({ people, watches }) {\n  return people.map((person) => {\n    const own = watches.filter(({ who }) => who === person.id).map(({ from, to }) => [Date.parse(from), Date.parse(to)]).sort((a, b) => a[0] - b[0]);\n    let worst = 24;\n    for (let at = 1; at < own.length; at++) worst = Math.min(worst, (own[at][0] - own[at - 1][1]) / 3600000);\n    return { ...person, hours: Math.max(0, Math.round(worst * 10) / 10), short: worst < NEEDED };\n  });\n}\n\n\n//# sourceURL=webpack:///./src/crew/rest-hours.js?\n}");

/***/ },

/***/ "./src/crew/rest-table.js"
/*!********************************!*\
  !*** ./src/crew/rest-table.js ***!
  \********************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   restTable: () => (/* binding */ restTable)\n/* harmony export */ });\n/* harmony import */ var _shared_i18n_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../shared/i18n.js */ \"./src/shared/i18n.js\");\n/* harmony import */ var _shared_ui_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ../shared/ui.js */ \"./src/shared/ui.js\");\n/* harmony import */ var _rest_hours_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./rest-hours.js */ \"./src/crew/rest-hours.js\");\n\n\n\nfunction restTable(week) {\n  const rows = (0,_rest_hours_js__WEBPACK_IMPORTED_MODULE_2__.restHours)(week);\n  const short = rows.filter((row) => row.short).length;\n  const columns = [\n    { label: \"Name\", of: ({ name }) => name },\n    { label: \"Rest\", align: \"right\", of: ({ name, hours, short }) => (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_1__.badge)((0,_shared_i18n_js__WEBPACK_IMPORTED_MODULE_0__.t)(\"crew.rest\", { name, hours }), short ? \"alarm\" : \"calm\") },\n  ];\n  return (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_1__.h)(\"div\", {}, short > 0 && (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_1__.h)(\"p\", { role: \"alert\" }, (0,_shared_i18n_js__WEBPACK_IMPORTED_MODULE_0__.t)(\"crew.short\", { count: short })), (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_1__.table)(columns, rows));\n}\n\n\n//# sourceURL=webpack:///./src/crew/rest-table.js?\n}");

/***/ },

/***/ "./src/crew/weather-card.js"
/*!**********************************!*\
  !*** ./src/crew/weather-card.js ***!
  \**********************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   beaufort: () => (/* binding */ beaufort),\n/* harmony export */   weatherCard: () => (/* binding */ weatherCard)\n/* harmony export */ });\n/* harmony import */ var _shared_api_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../shared/api.js */ \"./src/shared/api.js\");\n/* harmony import */ var _shared_ports_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ../shared/ports.js */ \"./src/shared/ports.js\");\n/* harmony import */ var _shared_ui_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ../shared/ui.js */ \"./src/shared/ui.js\");\n\n\n\nconst FORCES = [0.3, 1.6, 3.4, 5.5, 8, 10.8, 13.9, 17.2, 20.8, 24.5, 28.5, 32.7];\nconst beaufort = (speed) => FORCES.filter((limit) => speed >= limit).length;\nfunction weatherCard(port) {\n  const root = (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_2__.card)(`Wind at ${(0,_shared_ports_js__WEBPACK_IMPORTED_MODULE_1__.portName)(port)}`);\n  (0,_shared_api_js__WEBPACK_IMPORTED_MODULE_0__.weather)(port).then((now) => {\n    if (!now) return root.append((0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_2__.h)(\"p\", {}, \"–\"));\n    root.append((0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_2__.h)(\"p\", {}, `${beaufort(now.speed)} Bft, ${now.direction}°, ${now.visibility} M`));\n    root.append((0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_2__.plotCard)(\"Last week\", { axes: false, marks: [{ type: \"rose\", data: now.rose, classes: [\"1–3\", \"4–5\", \"6–7\", \"8+\"] }] }));\n  });\n  return root;\n}\n\n\n//# sourceURL=webpack:///./src/crew/weather-card.js?\n}");

/***/ },

/***/ "./src/crew/week.js"
/*!**************************!*\
  !*** ./src/crew/week.js ***!
  \**************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   weekOf: () => (/* binding */ weekOf)\n/* harmony export */ });\nfunction weekOf(date) {\n  const day = new Date(Date.UTC(date.getFullYear(), date.getMonth(), date.getDate()));\n  day.setUTCDate(day.getUTCDate() + 4 - (day.getUTCDay() || 7));\n  const first = Date.UTC(day.getUTCFullYear(), 0, 1);\n  return `${day.getUTCFullYear()}-W${String(Math.ceil(((day - first) / 86400000 + 1) / 7)).padStart(2, \"0\")}`;\n}\n\n\n//# sourceURL=webpack:///./src/crew/week.js?\n}");

/***/ },

/***/ "./src/crew/workload-plot.js"
/*!***********************************!*\
  !*** ./src/crew/workload-plot.js ***!
  \***********************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   workloadPlot: () => (/* binding */ workloadPlot)\n/* harmony export */ });\n/* harmony import */ var _shared_lists_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ../shared/lists.js */ \"./src/shared/lists.js\");\n/* harmony import */ var _shared_ui_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ../shared/ui.js */ \"./src/shared/ui.js\");\n\n\nconst DAYS = [\"Mo\", \"Tu\", \"We\", \"Th\", \"Fr\", \"Sa\", \"Su\"];\nfunction workloadPlot({ watches }) {\n  const hours = watches.map(({ from, to, vessel }) => ({ day: DAYS[(new Date(from).getDay() + 6) % 7], vessel, hours: (Date.parse(to) - Date.parse(from)) / 3600000 }));\n  const data = Object.values((0,_shared_lists_js__WEBPACK_IMPORTED_MODULE_0__.inHeaps)(hours, ({ day, vessel }) => `${day} ${vessel}`)).map((list) => ({\n    x: list[0].day, color: list[0].vessel, y: list.reduce((sum, one) => sum + one.hours, 0),\n  }));\n  return (0,_shared_ui_js__WEBPACK_IMPORTED_MODULE_1__.plotCard)(\"Hours on watch\", { x: { type: \"band\", domain: DAYS }, y: { zero: true }, marks: [{ type: \"bar\", data, stacked: true }, { type: \"rule\", y: 48 }] });\n}\n\n\n//# sourceURL=webpack:///./src/crew/workload-plot.js?\n}");

/***/ },

/***/ "./src/messages/da.js"
/*!****************************!*\
  !*** ./src/messages/da.js ***!
  \****************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   da: () => (/* binding */ da)\n/* harmony export */ });\nconst da = {\n  \"nav.timetable\": \"Sejlplan\", \"nav.booking\": \"Bestilling\", \"nav.crew\": \"Besætning\",\n  \"departures.title\": \"Afgange fra {port}\", \"departures.none\": \"Ingen flere afgange i dag\",\n  \"departures.count\": \"{count, plural, one {# afgang} other {# afgange}}\",\n  \"departures.delayed\": \"Forsinket {minutes} minutter\", \"departures.cancelled\": \"Aflyst: {reason}\",\n  \"tide.title\": \"Tidevand ved {port}\", \"tide.next\": \"Næste højvande {time}, {height} m\",\n  \"booking.title\": \"Bestil en overfart\", \"booking.step\": \"Trin {at} af {of}\", \"booking.total\": \"I alt {price}\",\n  \"booking.refund\": \"Refusion\", \"booking.done\": \"Bestilt. Din reference er {reference}.\",\n  \"crew.title\": \"Ugens vagter\", \"form.submit\": \"Fortsæt\", \"form.required\": \"Udfyld venligst feltet\",\n  \"form.email\": \"Det er ikke en e-mailadresse\", \"form.phone\": \"Angiv nummeret med landekode\",\n  \"error.offline\": \"Du er offline. Vi prøver igen.\",\n};\n\n\n//# sourceURL=webpack:///./src/messages/da.js?\n}");

/***/ },

/***/ "./src/messages/en.js"
/*!****************************!*\
  !*** ./src/messages/en.js ***!
  \****************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   en: () => (/* binding */ en)\n/* harmony export */ });\nconst en = {\n  \"nav.timetable\": \"Timetable\", \"nav.booking\": \"Booking\", \"nav.crew\": \"Crew\",\n  \"departures.title\": \"Departures from {port}\", \"departures.none\": \"No more departures today\",\n  \"departures.count\": \"{count, plural, one {# sailing} other {# sailings}}\",\n  \"departures.delayed\": \"Delayed by {minutes} minutes\", \"departures.cancelled\": \"Cancelled: {reason}\",\n  \"tide.title\": \"Tide at {port}\", \"tide.next\": \"Next high water {time}, {height} m\",\n  \"booking.title\": \"Book a crossing\", \"booking.step\": \"Step {at} of {of}\", \"booking.total\": \"Total {price}\",\n  \"booking.passengers\": \"{count, plural, =0 {Nobody yet} one {# passenger} other {# passengers}}\",\n  \"booking.refund\": \"Refund conditions\", \"booking.done\": \"Booked. Your reference is {reference}.\",\n  \"crew.title\": \"Watches of the week\", \"crew.rest\": \"{name} has rested {hours} of 11 hours\",\n  \"crew.short\": \"{count, plural, one {# person is} other {# people are}} short of rest\",\n  \"form.submit\": \"Continue\", \"form.required\": \"Please fill this in\", \"form.email\": \"This is no e-mail address\",\n  \"form.phone\": \"Please give the number with its country code\", \"form.date\": \"This is no date\",\n  \"form.early\": \"The earliest date is {limit}\", \"error.offline\": \"You are offline. We will try again.\",\n};\n\n\n//# sourceURL=webpack:///./src/messages/en.js?\n}");

/***/ },

/***/ "./src/shared/api.js"
/*!***************************!*\
  !*** ./src/shared/api.js ***!
  \***************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   book: () => (/* binding */ book),\n/* harmony export */   notices: () => (/* binding */ notices),\n/* harmony export */   roster: () => (/* binding */ roster),\n/* harmony export */   sailings: () => (/* binding */ sailings),\n/* harmony export */   weather: () => (/* binding */ weather)\n/* harmony export */ });\n/* harmony import */ var capstan_fetch__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! capstan-fetch */ \"./node_modules/capstan-fetch/src/client.js\");\n/* harmony import */ var capstan_fetch__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! capstan-fetch */ \"./node_modules/capstan-fetch/src/errors.js\");\n/* harmony import */ var fogbell_log__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! fogbell-log */ \"./node_modules/fogbell-log/index.js\");\n/* harmony import */ var _store_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ./store.js */ \"./src/shared/store.js\");\n\n\n\nconst log = (0,fogbell_log__WEBPACK_IMPORTED_MODULE_2__.logger)(\"api\");\nconst api = (0,capstan_fetch__WEBPACK_IMPORTED_MODULE_0__.client)({ base: \"/api/v3\", timeout: 6000, headers: { \"x-client\": \"site\" } });\nasync function guarded(work, fallback) {\n  try {\n    return await work();\n  } catch (error) {\n    if (error instanceof capstan_fetch__WEBPACK_IMPORTED_MODULE_1__.HttpError && error.isClient) throw error;\n    log.warn(\"request failed\", error);\n    if (!navigator.onLine) _store_js__WEBPACK_IMPORTED_MODULE_3__.online.set(false);\n    return fallback;\n  }\n}\nconst sailings = (port, day) => guarded(() => api.getCached(\"/sailings\", { params: { port, day } }), []);\nconst notices = () => guarded(() => api.getCached(\"/notices\"), []);\nconst book = (trip) => api.post(\"/bookings\", trip);\nconst roster = (week) => guarded(() => api.get(\"/roster\", { params: { week } }), { people: [], watches: [] });\nconst weather = (port) => guarded(() => api.get(\"/weather\", { params: { port } }), null);\n\n\n//# sourceURL=webpack:///./src/shared/api.js?\n}");

/***/ },

/***/ "./src/shared/format.js"
/*!******************************!*\
  !*** ./src/shared/format.js ***!
  \******************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   ago: () => (/* binding */ ago),\n/* harmony export */   longDate: () => (/* binding */ longDate),\n/* harmony export */   moment: () => (/* binding */ moment),\n/* harmony export */   price: () => (/* binding */ price),\n/* harmony export */   time: () => (/* binding */ time)\n/* harmony export */ });\n/* harmony import */ var moorline__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! moorline */ \"./node_modules/moorline/src/index.js\");\n/* harmony import */ var _i18n_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./i18n.js */ \"./src/shared/i18n.js\");\n\n\nconst time = (at) => (0,moorline__WEBPACK_IMPORTED_MODULE_0__.format)(at, \"time\", _i18n_js__WEBPACK_IMPORTED_MODULE_1__.locale);\nconst longDate = (at) => (0,moorline__WEBPACK_IMPORTED_MODULE_0__.format)(at, \"longDate\", _i18n_js__WEBPACK_IMPORTED_MODULE_1__.locale);\nconst ago = (at, now) => (0,moorline__WEBPACK_IMPORTED_MODULE_0__.relative)(at, now, _i18n_js__WEBPACK_IMPORTED_MODULE_1__.locale);\nconst moment = moorline__WEBPACK_IMPORTED_MODULE_0__.parse;\nconst money = new Intl.NumberFormat(_i18n_js__WEBPACK_IMPORTED_MODULE_1__.locale, { style: \"currency\", currency: \"EUR\" });\nconst price = (cents) => money.format(cents / 100);\n\n\n//# sourceURL=webpack:///./src/shared/format.js?\n}");

/***/ },

/***/ "./src/shared/i18n.js"
/*!****************************!*\
  !*** ./src/shared/i18n.js ***!
  \****************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   locale: () => (/* binding */ locale),\n/* harmony export */   t: () => (/* binding */ t)\n/* harmony export */ });\n/* harmony import */ var windlass_i18n__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! windlass-i18n */ \"./node_modules/windlass-i18n/index.js\");\n/* harmony import */ var windlass_i18n__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! windlass-i18n */ \"./node_modules/windlass-i18n/direction.js\");\n/* harmony import */ var _messages_da_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ../messages/da.js */ \"./src/messages/da.js\");\n/* harmony import */ var _messages_en_js__WEBPACK_IMPORTED_MODULE_3__ = __webpack_require__(/*! ../messages/en.js */ \"./src/messages/en.js\");\n\n\n\nconst locale = document.documentElement.lang === \"da\" ? \"da\" : \"en\";\ndocument.documentElement.dir = (0,windlass_i18n__WEBPACK_IMPORTED_MODULE_1__.direction)(locale);\nconst t = (0,windlass_i18n__WEBPACK_IMPORTED_MODULE_0__.translator)(locale, locale === \"da\" ? { ..._messages_en_js__WEBPACK_IMPORTED_MODULE_3__.en, ..._messages_da_js__WEBPACK_IMPORTED_MODULE_2__.da } : _messages_en_js__WEBPACK_IMPORTED_MODULE_3__.en);\n\n\n//# sourceURL=webpack:///./src/shared/i18n.js?\n}");

/***/ },

/***/ "./src/shared/lists.js"
/*!*****************************!*\
  !*** ./src/shared/lists.js ***!
  \*****************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   afterQuiet: () => (/* binding */ afterQuiet),\n/* harmony export */   inHeaps: () => (/* binding */ inHeaps)\n/* harmony export */ });\n/* harmony import */ var ropework__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ropework */ \"./node_modules/ropework/lib/index.js\");\n\nconst inHeaps = ropework__WEBPACK_IMPORTED_MODULE_0__.inHeaps;\nconst afterQuiet = ropework__WEBPACK_IMPORTED_MODULE_0__.afterQuiet;\n\n\n//# sourceURL=webpack:///./src/shared/lists.js?\n}");

/***/ },

/***/ "./src/shared/page.js"
/*!****************************!*\
  !*** ./src/shared/page.js ***!
  \****************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   page: () => (/* binding */ page)\n/* harmony export */ });\n/* harmony import */ var _ui_js__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! ./ui.js */ \"./src/shared/ui.js\");\n/* harmony import */ var _i18n_js__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! ./i18n.js */ \"./src/shared/i18n.js\");\n/* harmony import */ var _store_js__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! ./store.js */ \"./src/shared/store.js\");\n\n\n\nconst LINKS = [\"timetable\", \"booking\", \"crew\"];\nfunction page(current, ...content) {\n  const links = LINKS.map((name) => (0,_ui_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"a\", { href: `${name}.html`, \"aria-current\": name === current ? \"page\" : null }, (0,_i18n_js__WEBPACK_IMPORTED_MODULE_1__.t)(`nav.${name}`)));\n  const warnings = (0,_ui_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"div\", { class: \"warnings\" });\n  _store_js__WEBPACK_IMPORTED_MODULE_2__.online.subscribe((isOnline) => warnings.replaceChildren(...(isOnline ? [] : [(0,_ui_js__WEBPACK_IMPORTED_MODULE_0__.banner)((0,_i18n_js__WEBPACK_IMPORTED_MODULE_1__.t)(\"error.offline\"), { kind: \"warning\" })])));\n  document.body.append((0,_ui_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"nav\", { class: \"site-nav\" }, links), warnings, (0,_ui_js__WEBPACK_IMPORTED_MODULE_0__.h)(\"main\", {}, ...content));\n}\n\n\n//# sourceURL=webpack:///./src/shared/page.js?\n}");

/***/ },

/***/ "./src/shared/ports.js"
/*!*****************************!*\
  !*** ./src/shared/ports.js ***!
  \*****************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   portName: () => (/* binding */ portName),\n/* harmony export */   portNames: () => (/* binding */ portNames),\n/* harmony export */   ports: () => (/* binding */ ports)\n/* harmony export */ });\nconst ports = {\n  kelpwick: { name: \"Kelpwick\", zone: 1, at: [-4.812, 57.301], sill: 1.1 },\n  \"saint-orme\": { name: \"Saint Orme\", zone: 2, at: [-4.951, 57.388], sill: 0.6 },\n  \"gull-holm\": { name: \"Gull Holm\", zone: 2, at: [-5.108, 57.342], sill: 0.9 },\n  tarnsey: { name: \"Tarnsey\", zone: 3, at: [-5.231, 57.419], sill: 1.4 },\n  \"north-skerry\": { name: \"North Skerry\", zone: 4, at: [-5.377, 57.512], sill: 0.4 },\n};\nconst portNames = Object.keys(ports);\nconst portName = (id) => ports[id]?.name ?? id;\n\n\n//# sourceURL=webpack:///./src/shared/ports.js?\n}");

/***/ },

/***/ "./src/shared/store.js"
/*!*****************************!*\
  !*** ./src/shared/store.js ***!
  \*****************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   homePort: () => (/* binding */ homePort),\n/* harmony export */   online: () => (/* binding */ online),\n/* harmony export */   session: () => (/* binding */ session),\n/* harmony export */   toggleFavourite: () => (/* binding */ toggleFavourite)\n/* harmony export */ });\n/* harmony import */ var fairlead_bus__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! fairlead-bus */ \"./node_modules/fairlead-bus/src/derived.js\");\n/* harmony import */ var fairlead_bus__WEBPACK_IMPORTED_MODULE_1__ = __webpack_require__(/*! fairlead-bus */ \"./node_modules/fairlead-bus/src/persisted.js\");\n/* harmony import */ var fairlead_bus__WEBPACK_IMPORTED_MODULE_2__ = __webpack_require__(/*! fairlead-bus */ \"./node_modules/fairlead-bus/src/store.js\");\n\nconst session = (0,fairlead_bus__WEBPACK_IMPORTED_MODULE_1__.persisted)(\"kelpwick-session\", { port: \"kelpwick\", favourites: [] });\nconst online = (0,fairlead_bus__WEBPACK_IMPORTED_MODULE_2__[\"default\"])(navigator.onLine);\naddEventListener(\"online\", () => online.set(true));\naddEventListener(\"offline\", () => online.set(false));\nconst homePort = (0,fairlead_bus__WEBPACK_IMPORTED_MODULE_0__.derived)([session], (now) => now.port);\nfunction toggleFavourite(sailing) {\n  session.set((now) => ({\n    ...now,\n    favourites: now.favourites.includes(sailing) ? now.favourites.filter((id) => id !== sailing) : [...now.favourites, sailing],\n  }));\n}\n\n\n//# sourceURL=webpack:///./src/shared/store.js?\n}");

/***/ },

/***/ "./src/shared/ui.js"
/*!**************************!*\
  !*** ./src/shared/ui.js ***!
  \**************************/
(__unused_webpack___webpack_module__, __webpack_exports__, __webpack_require__) {

eval("{__webpack_require__.r(__webpack_exports__);\n/* harmony export */ __webpack_require__.d(__webpack_exports__, {\n/* harmony export */   badge: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.badge),\n/* harmony export */   banner: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.banner),\n/* harmony export */   button: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.button),\n/* harmony export */   card: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.card),\n/* harmony export */   dialog: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.dialog),\n/* harmony export */   h: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.h),\n/* harmony export */   icon: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.icon),\n/* harmony export */   plotCard: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.plotCard),\n/* harmony export */   spinner: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.spinner),\n/* harmony export */   table: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.table),\n/* harmony export */   tabs: () => (/* reexport safe */ _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__.tabs)\n/* harmony export */ });\n/* harmony import */ var _kelpwick_ui__WEBPACK_IMPORTED_MODULE_0__ = __webpack_require__(/*! @kelpwick/ui */ \"./node_modules/@kelpwick/ui/src/index.js\");\n// The parts of the house style that our pages use.\n\n\n\n//# sourceURL=webpack:///./src/shared/ui.js?\n}");

/***/ }

/******/ 	});
/************************************************************************/
/******/ 	// The module cache
/******/ 	const __webpack_module_cache__ = {};
/******/ 	
/******/ 	// The require function
/******/ 	function __webpack_require__(moduleId) {
/******/ 		// Check if module is in cache
/******/ 		const cachedModule = __webpack_module_cache__[moduleId];
/******/ 		if (cachedModule !== undefined) {
/******/ 			return cachedModule.exports;
/******/ 		}
/******/ 		// Create a new module (and put it into the cache)
/******/ 		const module = __webpack_module_cache__[moduleId] = {
/******/ 			// no module.id needed
/******/ 			// no module.loaded needed
/******/ 			exports: {}
/******/ 		};
/******/ 	
/******/ 		// Execute the module function
/******/ 		if (!(moduleId in __webpack_modules__)) {
/******/ 			delete __webpack_module_cache__[moduleId];
/******/ 			const e = new Error("Cannot find module '" + moduleId + "'");
/******/ 			e.code = 'MODULE_NOT_FOUND';
/******/ 			throw e;
/******/ 		}
/******/ 		__webpack_modules__[moduleId](module, module.exports, __webpack_require__);
/******/ 	
/******/ 		// Return the exports of the module
/******/ 		return module.exports;
/******/ 	}
/******/ 	
/************************************************************************/
/******/ 	/* webpack/runtime/define property getters */
/******/ 	// define getter/value functions for harmony exports
/******/ 	__webpack_require__.d = (exports, definition) => {
/******/ 		for(var key in definition) {
/******/ 			if(__webpack_require__.o(definition, key) && !__webpack_require__.o(exports, key)) {
/******/ 				Object.defineProperty(exports, key, { enumerable: true, get: definition[key] });
/******/ 			}
/******/ 		}
/******/ 	};
/******/ 	
/******/ 	/* webpack/runtime/hasOwnProperty shorthand */
/******/ 	__webpack_require__.o = (obj, prop) => (Object.prototype.hasOwnProperty.call(obj, prop));
/******/ 	
/******/ 	/* webpack/runtime/make namespace object */
/******/ 	// define __esModule on exports
/******/ 	__webpack_require__.r = (exports) => {
/******/ 		Object.defineProperty(exports, Symbol.toStringTag, { value: 'Module' });
/******/ 		Object.defineProperty(exports, '__esModule', { value: true });
/******/ 	};
/******/ 	
/************************************************************************/
/******/ 	
/******/ 	// startup
/******/ 	// Load entry module and return exports
/******/ 	// This entry module can't be inlined because the eval devtool is used.
/******/ 	let __webpack_exports__ = __webpack_require__("./src/crew/main.js");
/******/ 	
/******/ })()
;