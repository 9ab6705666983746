import { h } from "./h.js";
export function table(columns, rows, { caption, empty = "Nothing to show" } = {}) {
  const head = h("tr", {}, columns.map(({ label, align }) => h("th", { scope: "col", class: align }, label)));
  const line = (row) => h("tr", {}, columns.map(({ of, align }) => h("td", { class: align }, of(row))));
  const body = rows.length > 0 ? rows.map(line) : [h("tr", {}, h("td", { colSpan: columns.length }, empty))];
  return h("table", { class: "k-table" }, caption && h("caption", {}, caption), h("thead", {}, head), h("tbody", {}, body));
}
