"use strict";
module.exports = function set(object, path, value) {
  const keys = Array.isArray(path) ? path : String(path).match(/[^.[\]]+/g) || [];
  let node = object;
  keys.forEach((key, at) => {
    if (key === "__proto__") throw new TypeError("set: forbidden key");
    if (at === keys.length - 1) node[key] = value;
    else node = node[key] = node[key] || (/^\d+$/.test(keys[at + 1]) ? [] : {});
  });
  return object;
};
