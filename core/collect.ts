/** Gathering rows by a key, in order of first appearance (Map.groupBy, which Node 20 lacks). */

/** @example groupBy([1, 2, 3], (n) => n % 2) // [[1, [1, 3]], [0, [2]]] */
export function groupBy<T, K>(rows: readonly T[], key: (row: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const row of rows) {
    const k = key(row);
    const group = groups.get(k);
    if (group) group.push(row);
    else groups.set(k, [row]);
  }
  return groups;
}
