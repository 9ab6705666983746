(globalThis.TURBOPACK||(globalThis.TURBOPACK=[])).push(["object"==typeof document?document.currentScript:void 0,8081,e=>{"use strict";e.s([])},8355,e=>{"use strict";e.s([])}]);
