const LOCAL = /^[\p{L}\p{N}.!#$%&'*+/=?^_`{|}~-]{1,64}$/u;
const LABEL = /^[\p{L}\p{N}](?:[\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?$/u;
export const email = () => (value) => {
  const at = value.lastIndexOf("@");
  const domain = value.slice(at + 1).split(".");
  const good = at > 0 && LOCAL.test(value.slice(0, at)) && domain.length > 1 && domain.every((label) => LABEL.test(label));
  return good ? null : { code: "email" };
};
