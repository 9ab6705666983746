import { run } from "./checks/run.js";
import { control } from "./control.js";
let serial = 0;
export function field(name, { label, type = "text", checks = [], hint, ...rest }, state, messages) {
  const id = `field-${name}-${++serial}`;
  const element = document.createElement("div");
  element.className = "field";
  const caption = document.createElement("label");
  caption.htmlFor = id;
  caption.textContent = label;
  const input = control(type, { id, name, ...rest });
  const note = document.createElement("p");
  note.className = "field-note";
  note.id = `${id}-note`;
  note.textContent = hint ?? "";
  input.setAttribute("aria-describedby", note.id);
  element.append(caption, input, note);
  const read = () => (type === "checkbox" ? input.checked : input.value);
  async function validate() {
    const error = await run(checks, read(), state.get().values, messages);
    note.textContent = error ?? hint ?? "";
    input.setAttribute("aria-invalid", String(Boolean(error)));
    return error;
  }
  input.addEventListener("change", () => {
    state.set((now) => ({ ...now, values: { ...now.values, [name]: read() } }));
    validate();
  });
  return { name, element, input, read, validate };
}
