const RIGHT_TO_LEFT = new Set(["ar", "fa", "he", "ur", "yi", "ps", "sd"]);
export const direction = (locale) => (RIGHT_TO_LEFT.has(locale.split("-")[0]) ? "rtl" : "ltr");
