const LENGTHS = { 44: [9, 10], 45: [8, 8], 47: [8, 8], 49: [7, 11], 31: [9, 9], 33: [9, 9], 353: [7, 9] };
export const phone = () => (value) => {
  const digits = value.replace(/[\s().-]/g, "");
  const match = /^\+(\d{6,15})$/.exec(digits);
  if (!match) return { code: "phone" };
  const code = Object.keys(LENGTHS).find((prefix) => match[1].startsWith(prefix));
  if (!code) return null;
  const rest = match[1].length - code.length;
  return rest >= LENGTHS[code][0] && rest <= LENGTHS[code][1] ? null : { code: "phone", country: code };
};
