(globalThis.TURBOPACK||(globalThis.TURBOPACK=[])).push(["object"==typeof document?document.currentScript:void 0,72455,e=>{"use strict";e.s([])},32369,e=>{"use strict";e.s([])}]);
