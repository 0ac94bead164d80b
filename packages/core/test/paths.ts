/** Every path of plain data, but the empty one. */
export function pathsOf(data: unknown, at: (string | number)[] = []): (string | number)[][] {
  const own = at.length > 0 ? [at] : [];
  if (typeof data !== 'object' || data === null) return own;
  const entries: [string | number, unknown][] = Array.isArray(data)
    ? data.map((one, i) => [i, one])
    : Object.entries(data);
  return [...own, ...entries.flatMap(([name, one]) => pathsOf(one, [...at, name]))];
}
