import { ago } from "../shared/format.js";
import { afterQuiet } from "../shared/lists.js";
import { card, h } from "../shared/ui.js";
const KEY = "kelpwick-handover";
export function handover() {
  const saved = JSON.parse(localStorage.getItem(KEY) ?? "null");
  const note = h("p", { class: "note" }, saved ? ago(new Date(saved.at)) : "");
  const keep = afterQuiet(() => {
    localStorage.setItem(KEY, JSON.stringify({ at: Date.now(), text: area.value }));
    note.textContent = ago(new Date());
  }, 800);
  const area = h("textarea", { rows: 6, value: saved?.text ?? "", onInput: keep });
  return card("Handover", area, note);
}
