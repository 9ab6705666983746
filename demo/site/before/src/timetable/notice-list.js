import { notices } from "../shared/api.js";
import { banner, h } from "../shared/ui.js";
export function noticeList() {
  const root = h("div", { class: "notices" });
  notices().then((list) => {
    const unread = list.filter(({ id }) => !sessionStorage.getItem(`notice-${id}`));
    root.append(...unread.map(({ id, text, severe }) => banner(text, { kind: severe ? "warning" : "notice", onClose: () => sessionStorage.setItem(`notice-${id}`, "1") })));
  });
  return root;
}
