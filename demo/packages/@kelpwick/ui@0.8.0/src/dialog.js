import { button } from "./button.js";
import { h } from "./h.js";
/** A modal dialog; resolves with the value of the button that closed it, or null. */
export function dialog({ title, body, actions }) {
  return new Promise((resolve) => {
    const close = (value) => {
      root.close();
      root.remove();
      resolve(value);
    };
    const row = actions.map(({ label, value, kind }) => button(label, () => close(value), { kind }));
    const root = h("dialog", { class: "k-dialog", "aria-label": title }, h("h2", {}, title), body, h("footer", {}, row));
    root.addEventListener("cancel", () => close(null));
    document.body.append(root);
    root.showModal();
  });
}
