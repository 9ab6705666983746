const ISO = /^(\d{4})-(\d\d)-(\d\d)(?:[T ](\d\d):(\d\d)(?::(\d\d))?)?(Z|[+-]\d\d:?\d\d)?$/;
export function parse(text) {
  const match = ISO.exec(text.trim());
  if (!match) throw new RangeError(`moorline: cannot read ${text}`);
  const [, year, month, day, hour = 0, minute = 0, second = 0, zone] = match;
  if (!zone) return new Date(year, month - 1, day, hour, minute, second);
  const utc = Date.UTC(year, month - 1, day, hour, minute, second);
  if (zone === "Z") return new Date(utc);
  const sign = zone[0] === "-" ? -1 : 1;
  return new Date(utc - sign * (Number(zone.slice(1, 3)) * 60 + Number(zone.slice(-2))) * 60000);
}
