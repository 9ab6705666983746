export const sameAs = (other) => (value, values) => (value === values[other] ? null : { code: "same-as", other });
