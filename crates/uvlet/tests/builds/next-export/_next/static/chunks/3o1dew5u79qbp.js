(globalThis.TURBOPACK||(globalThis.TURBOPACK=[])).push(["object"==typeof document?document.currentScript:void 0,60219,e=>{"use strict";e.s([])},22315,e=>{"use strict";e.s([])}]);
