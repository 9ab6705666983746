export const matches = (pattern, code = "pattern") => (value) => (pattern.test(value) ? null : { code });
