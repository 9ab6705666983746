export async function run(checks, value, values, messages) {
  for (const check of checks) {
    const found = await check(value, values);
    if (found) return messages[found.code]?.(found) ?? found.code;
  }
  return null;
}
