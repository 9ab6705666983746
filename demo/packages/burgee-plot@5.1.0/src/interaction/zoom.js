export function zoom(root, scales, box, redraw) {
  root.addEventListener("wheel", (event) => {
    event.preventDefault();
    const [low, high] = scales.x.domain;
    const bounds = root.getBoundingClientRect();
    const at = scales.x.invert(((event.clientX - bounds.left) / bounds.width) * box.width);
    const factor = event.deltaY > 0 ? 1.2 : 1 / 1.2;
    scales.x.domain[0] = at - (at - low) * factor;
    scales.x.domain[1] = at + (high - at) * factor;
    redraw();
  }, { passive: false });
}
