const NAMESPACE = "http://www.w3.org/2000/svg";
export function element(box, low, high, level) {
  const path = document.createElementNS(NAMESPACE, "path");
  path.setAttribute("d", `M${box.left} ${low}V${high}h10V${low}zM${box.left - 4} ${level}h18`);
  path.setAttribute("stroke", "currentColor");
  return path;
}
