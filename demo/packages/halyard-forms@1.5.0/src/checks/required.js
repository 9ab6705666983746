export const required = () => (value) => (value === "" || value === false || value === undefined ? { code: "required" } : null);
