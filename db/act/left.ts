/** Readers of what acts left behind: each figure is read back as what it was, not taken on trust. */
import type { Mg, Micros } from "#core/measure/exact";
import { readDay, type Day } from "#core/when";
import { getTableColumns, type Column } from "drizzle-orm";
import type { PgTable } from "drizzle-orm/pg-core";
import { mixed, number, string } from "yup";

const whole = (v: unknown): boolean => typeof v === "number" && Number.isSafeInteger(v);

export const undoMicros = () => mixed((v): v is Micros => whole(v)).required();
export const undoMg = () => mixed((v): v is Mg => whole(v)).required();
export const undoId = () => number().integer().required();
export const undoIdOrNull = () => number().integer().nullable().defined();
export const undoNumberOrNull = () => number().nullable().defined();
export const undoText = () => string().defined();
const isDay = (v: unknown): v is Day => typeof v === "string" && readDay(v).ok;
export const undoDay = () => mixed(isDay).required();
export const undoDayOrNull = () => mixed(isDay).nullable().defined();
/** One of a list of words. @example leftOneOf(["value", "weight"] as const) */
export const undoOneOf = <const T extends string>(words: readonly T[]) =>
  mixed((v): v is T => typeof v === "string" && (words as readonly string[]).includes(v)).required();

/** What each kind of column may hold once it has been through JSON. */
const HOLDS: Record<string, (v: unknown) => boolean> = {
  number: (v) => typeof v === "number" && Number.isFinite(v),
  string: (v) => typeof v === "string",
  boolean: (v) => typeof v === "boolean",
  json: (v) => typeof v === "object",
};

/** Whether a column of our own kind can read it. */
function readable(c: Column, held: unknown): boolean {
  try {
    c.mapFromDriverValue(held);
    return true;
  } catch {
    return false;
  }
}

/**
 * A whole row of a table, as it was: every column there is, and each holding what it can.
 * @example leftRow(material)
 */
export const leftRow = <T extends PgTable>(table: T) => {
  const columns = Object.entries(getTableColumns(table));
  return mixed(
    (v): v is T["$inferSelect"] =>
      typeof v === "object" &&
      columns.every(([key, c]) => {
        const held = (v as Record<string, unknown>)[key];
        // A column that came later: the row is put back with what it starts from.
        if (held === undefined) return c.hasDefault || !c.notNull;
        return held === null ? !c.notNull : c.dataType === "custom" ? readable(c, held) : (HOLDS[c.dataType]?.(held) ?? false);
      }),
  ).required();
};
