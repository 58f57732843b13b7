/**
 * The result of work that bad input can stop.
 *
 * Core functions that read what a person typed return an `Outcome` instead of throwing, so that every caller has to
 * face the problem and can put its words beside the field. Programming mistakes (a negative weight made by code) throw.
 */

/** Why something could not be worked out; `say` is a whole sentence a maker can act on. */
export interface Problem {
  code: string;
  say: string;
}

export type Outcome<T> = { ok: true; value: T } | { ok: false; problem: Problem };

/** @example done(3) // { ok: true, value: 3 } */
export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });

/** @example refuse("negative", "Enter more than zero.") // problem negative */
export const refuse = (code: string, say: string): Outcome<never> => ({ ok: false, problem: { code, say } });

/** The value, or a default where it can't be read. @example orElse(refuse("empty", "Enter it."), 0) // 0 */
export const orElse = <T, F>(outcome: Outcome<T>, instead: F): T | F => (outcome.ok ? outcome.value : instead);
