/**
 * An act that can't be done, with the words to show and the field each belongs beside.
 *
 * Commands throw it inside their transaction, so that nothing half-done stays.
 */

export interface FieldProblem {
  /** Path of the field, such as `lines.2.price`; empty for the sheet as a whole. */
  field: string;
  say: string;
  /** What prevents it, each with a link. */
  see?: readonly { to: string; name: string }[];
}

/**
 * The first problem of what is typed already: a field still empty is only not written yet.
 * @example firstMistake([{ field: "name", say: "Enter a name." }, { field: "makes", say: "Not a weight." }], { name: "", makes: "x" }) // "Not a weight."
 */
export function firstMistake(problems: readonly FieldProblem[], sheet: object): string | null {
  const isEmpty = (path: string): boolean =>
    path.split(".").reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], sheet) === "";
  return problems.find((p) => p.say !== "" && !isEmpty(p.field))?.say ?? null;
}

export class Refused extends Error {
  readonly problems: readonly FieldProblem[];
  constructor(problems: readonly FieldProblem[]) {
    super(problems.map((p) => p.say).join(" "));
    this.name = "Refused";
    this.problems = problems;
  }
  /** @example Refused.one("name", "Another material has this name.").problems // [{ field: "name", say: "Another material has this name." }] */
  static one(field: string, say: string, see?: FieldProblem["see"]): Refused {
    return new Refused([see && see.length > 0 ? { field, say, see } : { field, say }]);
  }
}

/**
 * Whether an error is a refusal, also one of another copy of this module: the pages are built into one file, and the programs around them have theirs.
 * @example isRefusal(Refused.one("", "No.")) // true
 * @example isRefusal(new Error("No.")) // false
 */
export const isRefusal = (e: unknown): e is Refused =>
  e instanceof Error && /^(Refused|ChangedMeanwhile)$/.test(e.name) && "problems" in e && Array.isArray(e.problems);

/** What somebody else saved meanwhile: the sheet was opened on an older version. */
export interface EditConflict {
  actId: number;
  summary: string;
  who: string;
  /** ISO time. */
  at: string;
}

/** A save over a version that someone changed meanwhile. Nothing is saved; the sheet shows both. */
export class EditedMeanwhile extends Refused {
  readonly meanwhile: EditConflict;
  constructor(meanwhile: EditConflict) {
    super([{ field: "", say: "Someone changed this while your sheet was open. Nothing is lost: choose below what is saved." }]);
    this.name = "ChangedMeanwhile";
    this.meanwhile = meanwhile;
  }
}
