"use strict";
module.exports = function shortened(text, length, mark) {
  const ending = mark === undefined ? "…" : mark;
  if (text.length <= length) return text;
  const cut = text.slice(0, Math.max(0, length - ending.length));
  const space = cut.lastIndexOf(" ");
  return (space > length / 2 ? cut.slice(0, space) : cut) + ending;
};
