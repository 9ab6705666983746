import { afterQuiet } from "../shared/lists.js";
import { portNames, portName } from "../shared/ports.js";
import { h } from "../shared/ui.js";
export function filters({ port, onChange }) {
  const change = afterQuiet(onChange, 150);
  const select = h("select", { onChange: () => change({ to: select.value || null }) }, h("option", { value: "" }, "…"), ...portNames.filter((id) => id !== port).map((id) => h("option", { value: id }, portName(id))));
  const day = h("input", { type: "date", onInput: () => day.valueAsDate && change({ day: day.valueAsDate }) });
  return h("form", { class: "filters" }, select, day);
}
