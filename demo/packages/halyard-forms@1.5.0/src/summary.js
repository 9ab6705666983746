export function summary({ fields, state }, title) {
  const root = document.createElement("div");
  root.setAttribute("role", "alert");
  state.subscribe(({ errors }) => {
    const names = Object.keys(errors);
    root.hidden = names.length === 0;
    root.replaceChildren(title(names.length), ...names.map((name) => {
      const link = document.createElement("a");
      link.href = `#${fields.find((one) => one.name === name).input.id}`;
      link.textContent = errors[name];
      return link;
    }));
  });
  return root;
}
