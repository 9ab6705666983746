export const marks = new Map();
export function register(name, mark) {
  if (marks.has(name)) throw new Error(`mark ${name} is registered already`);
  marks.set(name, mark);
}
