"use strict";
module.exports = function writeAt(object, path, value) {
  const keys = Array.isArray(path) ? path : String(path).match(/[^.[\]]+/g) || [];
  let node = object;
  keys.forEach((key, at) => {
    if (key === "__proto__") throw new TypeError("writeAt: forbidden key");
    if (at === keys.length - 1) node[key] = value;
    else node = node[key] = node[key] || (/^\d+$/.test(keys[at + 1]) ? [] : {});
  });
  return object;
};
