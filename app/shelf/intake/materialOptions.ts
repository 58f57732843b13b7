/** What a name in a list may mean among materials: one of the library, a new one of some kind, or one of the shelf by another name. */
import { KIND_IDS, KINDS } from "#core/material/kinds";

/** @param library the entry the name seems to mean @param out what becomes of its rows as long as nobody has said */
export const materialOptions = (
  names: readonly string[],
  library: { key: string; name: string } | null | undefined,
  out = "leave these rows out",
): (readonly [string, string])[] => [
  ["", out],
  ...(library ? [[`library:${library.key}`, `from the library: ${library.name}`] as const] : []),
  ...KIND_IDS.map((k) => [`kind:${k}`, `add as: ${KINDS[k].label.toLowerCase()}`] as const),
  ...names.map((n) => [n, `is: ${n}`] as const),
];
