/**
 * Merges two sheets of one record, both changed since they were alike: which fields differ, and the sheet that comes of choosing.
 *
 * A field only one of them changed is settled; the rest is asked about. Each row of a table counts as a field.
 */
import { isObject } from "#core/objects";

export type Side = "mine" | "theirs";

export interface Field {
  /** Path on the sheet: "name", "lines.2", "channels.market". */
  path: string;
  mine: unknown;
  theirs: unknown;
  /** The side that alone changed it; null where both did, and it must be asked. */
  settled: Side | null;
}

type Sheet = Record<string, unknown>;

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Fields of a sheet by path; rows and groups one level down. */
function fieldsOf(sheet: Sheet): Map<string, unknown> {
  const out = new Map<string, unknown>();
  for (const [key, value] of Object.entries(sheet))
    if (Array.isArray(value) || isObject(value)) for (const [k, v] of Object.entries(value)) out.set(`${key}.${k}`, v);
    else out.set(key, value);
  return out;
}

/**
 * Every field in which the sheets differ.
 * @example mergeSheets({ name: "Oil" }, { name: "Oil, cold" }, { name: "Oil" }) // [{ path: "name", settled: "mine" }]
 */
export function mergeSheets(base: Sheet, mine: Sheet, theirs: Sheet): Field[] {
  const [b, m, t] = [fieldsOf(base), fieldsOf(mine), fieldsOf(theirs)];
  return [...new Set([...m.keys(), ...t.keys()])].flatMap((path): Field[] => {
    const [was, own, other] = [b.get(path), m.get(path), t.get(path)];
    if (same(own, other)) return [];
    return [{ path, mine: own, theirs: other, settled: same(other, was) ? "mine" : same(own, was) ? "theirs" : null }];
  });
}

/** The sheet that comes of choosing a side for each field that differs. */
export function joined(mine: Sheet, theirs: Sheet, fields: readonly Field[], sideOf: (f: Field) => Side): Sheet {
  const out = structuredClone(mine);
  for (const f of fields) {
    if (sideOf(f) === "mine") continue;
    const [key, inner] = f.path.split(".") as [string, string | undefined];
    if (inner === undefined) out[key] = f.theirs;
    else (out[key] as Record<string, unknown>)[inner] = f.theirs;
  }
  // Rows that one side hasn't got, or took off, leave no gap.
  for (const [key, value] of Object.entries(out))
    if (Array.isArray(value)) out[key] = value.filter((row) => row !== undefined && row !== null);
  return { ...theirs, ...out };
}
