/** Items put together by what they have in common, in the order in which each group was met first. Those without a key are left out. */
export function groupBy<T, K>(items: readonly T[], keyOf: (item: T) => K | null): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const key = keyOf(item);
    if (key === null) continue;
    const own = groups.get(key);
    if (own) own.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}
