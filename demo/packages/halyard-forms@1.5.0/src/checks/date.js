export const date = ({ after = () => -Infinity, before = () => Infinity } = {}) => (value) => {
  const time = Date.parse(value);
  if (Number.isNaN(time)) return { code: "date" };
  if (time < after()) return { code: "too-early", limit: after() };
  return time > before() ? { code: "too-late", limit: before() } : null;
};
