/** How wide the columns of a table are, out of what is in them. */

/**
 * Columns that take what they need where there is room for all, and their share of what is over; otherwise those that can wrap give way, each
 * by its share of what it could.
 * @param wanted how wide each is unwrapped @param least how narrow it can be; the same as `wanted` where it never wraps
 * @param room all of it together
 * @returns widths that come to the room
 * @example columnWidths([100, 50], [40, 50], 200) // [133.33333333333334, 66.66666666666667]
 * @example columnWidths([100, 50], [40, 50], 120) // [70, 50]
 */
export function columnWidths(wanted: readonly number[], least: readonly number[], room: number): number[] {
  const sum = (all: readonly number[]): number => all.reduce((a, n) => a + n, 0);
  const spare = room - sum(wanted);
  if (spare >= 0) return wanted.map((w) => w + (spare * w) / sum(wanted));
  const give = sum(wanted) - sum(least);
  // Too narrow even for the longest words: all are narrower by the same share, and words break.
  if (give < -spare) return least.map((w) => (w * room) / sum(least));
  return wanted.map((w, i) => w + (spare * (w - least[i]!)) / give);
}
