/** Rows by a key, in the order in which each key comes first. Map.groupBy, which Node 20 does not have. */
export function groupBy<T, K extends string | number>(rows: readonly T[], keyOf: (row: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    if (group) group.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return groups;
}
