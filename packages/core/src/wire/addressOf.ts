/** The address of an endpoint with its names filled in and its query behind it. */
export function addressOf(
  { at }: { readonly at: string },
  path: Readonly<Record<string, unknown>>,
  query: Readonly<Record<string, unknown>>,
): string {
  const filled = at.replaceAll(/\{(\w+)\}/gu, (_, name: string) => encodeURIComponent(String(path[name])));
  const asked = Object.entries(query).flatMap(([name, value]) =>
    value === undefined ? [] : [`${name}=${encodeURIComponent(String(value))}`],
  );
  return asked.length === 0 ? filled : `${filled}?${asked.join('&')}`;
}
