export const between = (low, high) => (value) => {
  const number = Number(value);
  return number >= low && number <= high ? null : { code: "between", low, high };
};
