/**
 * An act that can't be done, with the words to show and the field each belongs beside.
 *
 * Commands throw it inside their transaction, so that nothing half-done stays.
 */

export interface FieldProblem {
  /** Path of the field, such as `lines.2.price`; empty for the sheet as a whole. */
  field: string;
  say: string;
}

export class Refused extends Error {
  readonly problems: readonly FieldProblem[];
  constructor(problems: readonly FieldProblem[]) {
    super(problems.map((p) => p.say).join(" "));
    this.name = "Refused";
    this.problems = problems;
  }
  /** @example throw Refused.one("name", "Another material has this name.") */
  static one(field: string, say: string): Refused {
    return new Refused([{ field, say }]);
  }
}
