/** Record numbers as they come in addresses and sheets. */

const LARGEST = 2_147_483_647;

/** The record number a text stands for, or 0, which no record has. @example idOf("17") // 17 */
export function idOf(text: unknown): number {
  const n = Number(text);
  return Number.isInteger(n) && n > 0 && n <= LARGEST ? n : 0;
}
