/**
 * Column kinds used by every station. Each is read, not trusted: a row that holds what no row may hold throws where it is read,
 * and not three figures later.
 */
import { mg, micros, type Mg, type Micros } from "#core/measure/exact";
import { sql } from "drizzle-orm";
import { bigint, customType } from "drizzle-orm/pg-core";

/**
 * Words of a list of ours as SQL has them, not as parameters: an index is found only by the very words of its condition.
 * @example literals(["blended", "remelted"]) // ('blended', 'remelted')
 */
export const literals = (words: readonly string[]) => sql.raw(`(${words.map((w) => `'${w}'`).join(", ")})`);

/** Whole micros. */
export const microsColumn = customType<{ data: Micros; driverData: string | number }>({
  dataType: () => "bigint",
  fromDriver: (v) => micros(Number(v)),
});
/** Whole milligrams. */
export const mgColumn = customType<{ data: Mg; driverData: string | number }>({
  dataType: () => "bigint",
  fromDriver: (v) => mg(Number(v)),
});
/** Milligrams or pieces, as the material is measured. */
export const baseColumn = () => bigint({ mode: "number" });

type Words<T extends string> = readonly T[] | Readonly<Record<T, unknown>>;

/** Reads one word of a list, or of a record's keys. @throws TypeError for any other */
export function oneOf<const T extends string>(words: Words<T>): (v: unknown) => T {
  const known: ReadonlySet<unknown> = new Set(Array.isArray(words) ? words : Object.keys(words));
  const isWord = (v: unknown): v is T => known.has(v);
  return (v) => {
    if (!isWord(v)) throw new TypeError(`“${String(v)}” is none of ${[...known].join(", ")}`);
    return v;
  };
}

/** One word of a list, or of a record's keys. @example wordColumn(KINDS) */
export const wordColumn = <const T extends string>(words: Words<T>) =>
  customType<{ data: T; driverData: string }>({ dataType: () => "text", fromDriver: oneOf(words) })();

/** JSON with its own structure. @param holds whether what was read is that */
export const jsonColumn = <T>(holds: (v: unknown) => v is T) =>
  customType<{ data: T; driverData: unknown }>({
    dataType: () => "jsonb",
    toDriver: (v) => JSON.stringify(v),
    fromDriver: (v) => {
      if (!holds(v)) throw new TypeError(`not what this column holds: ${JSON.stringify(v)}`);
      return v;
    },
  })();
