/** Compiles `{name}` and `{count, plural, one {…} other {…}}` into a function of the values. */
export function compile(text, rule) {
  const parts = [];
  let at = 0;
  while (at < text.length) {
    const open = text.indexOf("{", at);
    if (open < 0) {
      parts.push(text.slice(at));
      break;
    }
    if (open > at) parts.push(text.slice(at, open));
    const close = closing(text, open);
    parts.push(hole(text.slice(open + 1, close), rule));
    at = close + 1;
  }
  return (values) => parts.map((part) => (typeof part === "string" ? part : part(values))).join("");
}
function closing(text, open) {
  let depth = 0;
  for (let at = open; at < text.length; at++) {
    if (text[at] === "{") depth++;
    else if (text[at] === "}" && --depth === 0) return at;
  }
  throw new SyntaxError(`unclosed brace in "${text}"`);
}
function hole(body, rule) {
  const [name, kind, ...rest] = body.split(",").map((part) => part.trim());
  if (kind !== "plural") return (values) => String(values[name] ?? "");
  const forms = {};
  const source = rest.join(",");
  for (const match of source.matchAll(/(=?\w+)\s*\{([^}]*)\}/g)) forms[match[1]] = match[2];
  return (values) => {
    const count = Number(values[name]);
    const form = forms[`=${count}`] ?? forms[rule(count)] ?? forms.other ?? "";
    return form.replaceAll("#", String(count));
  };
}
