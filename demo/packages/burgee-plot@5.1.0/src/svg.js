const NAMESPACE = "http://www.w3.org/2000/svg";
export function element(name, attributes = {}, ...children) {
  const node = document.createElementNS(NAMESPACE, name);
  for (const [key, value] of Object.entries(attributes)) {
    if (value !== undefined && value !== null) node.setAttribute(key, String(value));
  }
  node.append(...children);
  return node;
}
export const group = (attributes, ...children) => element("g", attributes, ...children);
export const translate = (x, y) => `translate(${round(x)} ${round(y)})`;
export const round = (value) => Math.round(value * 100) / 100;
