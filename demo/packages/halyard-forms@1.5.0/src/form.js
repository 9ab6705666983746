import fairlead from "fairlead-bus";
import { field } from "./field.js";
import { focusFirst } from "./focus.js";
import { collect, submit } from "./submit.js";
/** A form over a description of fields: `{name: {label, type, checks}}`. */
export function form(description, { onSubmit, messages }) {
  const state = fairlead({ values: {}, errors: {}, busy: false });
  const fields = Object.entries(description).map(([name, options]) => field(name, options, state, messages));
  const root = document.createElement("form");
  root.noValidate = true;
  root.append(...fields.map(({ element }) => element));
  const button = document.createElement("button");
  button.textContent = messages.submit;
  root.append(button);
  root.addEventListener("submit", async (event) => {
    event.preventDefault();
    const errors = {};
    for (const one of fields) {
      const error = await one.validate();
      if (error) errors[one.name] = error;
    }
    state.set((now) => ({ ...now, errors }));
    if (Object.keys(errors).length > 0) return focusFirst(fields, errors);
    await submit(state, () => onSubmit(collect(fields)));
  });
  state.subscribe(({ busy }) => {
    button.disabled = busy;
  });
  return { element: root, state, fields };
}
