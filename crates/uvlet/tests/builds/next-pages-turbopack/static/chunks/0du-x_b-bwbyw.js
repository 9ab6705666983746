(globalThis.TURBOPACK||(globalThis.TURBOPACK=[])).push(["object"==typeof document?document.currentScript:void 0,9101,e=>{"use strict";e.s([])},7449,e=>{"use strict";e.s([])}]);
