const cache = new Map();
export function plural(locale) {
  if (!cache.has(locale)) cache.set(locale, new Intl.PluralRules(locale));
  return (count) => cache.get(locale).select(count);
}
