const KINDS = {
  select({ options = [], ...rest }) {
    const node = Object.assign(document.createElement("select"), rest);
    for (const option of options) {
      const { value, label } = typeof option === "string" ? { value: option, label: option } : option;
      node.append(new Option(label, value));
    }
    return node;
  },
  textarea: (options) => Object.assign(document.createElement("textarea"), { rows: 4 }, options),
};
export function control(type, options) {
  if (type in KINDS) return KINDS[type](options);
  return Object.assign(document.createElement("input"), { type, autocomplete: "on" }, options);
}
