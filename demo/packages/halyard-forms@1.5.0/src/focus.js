export function focusFirst(fields, errors) {
  const first = fields.find(({ name }) => name in errors);
  first?.input.focus({ preventScroll: true });
  first?.element.scrollIntoView({ block: "center", behavior: "smooth" });
}
