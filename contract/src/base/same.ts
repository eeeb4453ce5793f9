/** Whether two contents say the same, whatever the order of their fields and absent against null. */
export function same(a: unknown, b: unknown): boolean {
  return stable(a) === stable(b);
}

function stable(v: unknown): string {
  return JSON.stringify(v ?? null, (_, x: unknown) =>
    x !== null && typeof x === 'object' && !Array.isArray(x)
      ? Object.fromEntries(
          Object.entries(x)
            .filter(([, y]) => y !== null && y !== undefined)
            .sort(([p], [q]) => (p < q ? -1 : 1)),
        )
      : x,
  );
}
