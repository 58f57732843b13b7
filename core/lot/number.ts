/**
 * Lot numbers from a scheme the workshop chooses, such as `{P}{YY}{MM}{DD}-{N}`.
 *
 * {P} product code · {YYYY} {YY} year · {MM} month · {DD} day · {DDD} day of the year · {N} {NN} {NNN} running number · {C} check character.
 */
import { done, refuse, type Outcome } from "../outcome.ts";
import { checkOf } from "./check.ts";
import { dayOfYear, type Day } from "../when.ts";

const TOKEN = /\{(P|YYYY|YY|MM|DDD|DD|NNN|NN|N)\}/g;
const CHECK = "{C}";
/** Whether numbers of a scheme end in a check character. @example isChecked("{P}{N}{C}") // true */
export const isChecked = (scheme: string): boolean => scheme.endsWith(CHECK);
const withoutCheck = (scheme: string): string => (isChecked(scheme) ? scheme.slice(0, -CHECK.length) : scheme);

/**
 * @returns problem `badScheme` unless it has a running number and only letters, digits, dots, dashes and known fields, a check character last
 * @example readScheme("{P}{YY}-{NN}") // ok
 */
export function readScheme(scheme: string): Outcome<string> {
  const rest = withoutCheck(scheme).replace(TOKEN, "");
  if (rest.includes(CHECK)) return refuse("badScheme", "The check character {C} goes in once, at the very end.");
  if (!/\{N{1,3}\}/.test(scheme)) return refuse("badScheme", "A scheme needs a running number: {N}, {NN} or {NNN}.");
  if (!/^[A-Za-z0-9.-]*$/.test(rest))
    return refuse("badScheme", "Use letters, digits, dots and dashes around {P} {YYYY} {YY} {MM} {DD} {DDD} {N}, and {C} at the end.");
  return scheme.length <= 40 ? done(scheme) : refuse("badScheme", "Keep the scheme under 40 characters.");
}

/** @example lotNumber("{P}{YY}{MM}{DD}-{N}", { code: "HB", day: "2026-11-25", serial: 1 }) // "HB261125-1" */
export function lotNumber(scheme: string, at: { code: string; day: Day; serial: number }): string {
  const [y, m, d] = at.day.split("-") as [string, string, string];
  const fields: Record<string, string> = {
    P: at.code,
    YYYY: y,
    YY: y.slice(2),
    MM: m,
    DD: d,
    DDD: String(dayOfYear(at.day)).padStart(3, "0"),
    N: String(at.serial),
    NN: String(at.serial).padStart(2, "0"),
    NNN: String(at.serial).padStart(3, "0"),
  };
  const number = withoutCheck(scheme).replace(TOKEN, (_, t: string) => fields[t]!);
  return isChecked(scheme) ? number + checkOf(number) : number;
}

/**
 * Gives numbers of the scheme that aren't taken, one after the other; each call takes the one it gives.
 * @example numberer("R{NN}", today, new Set(["R01"]))("") // "R02"
 */
export function numberer(scheme: string, day: Day, taken: ReadonlySet<string>): (code: string) => string {
  const given = new Set(taken);
  const last = new Map<string, number>();
  return (code) => {
    for (let serial = (last.get(code) ?? 0) + 1; ; serial++) {
      const number = lotNumber(scheme, { code, day, serial });
      if (given.has(number)) continue;
      given.add(number);
      last.set(code, serial);
      return number;
    }
  };
}

/**
 * What every number of the scheme on that day starts with: the text before its running number (and code, when unknown).
 * @example numberHead("R{YY}{DDD}-{NN}", { day: "2026-02-01" }) // "R26032-"
 */
export const numberHead = (scheme: string, at: { code?: string; day: Day }): string =>
  lotNumber(withoutCheck(scheme).replace(at.code === undefined ? /\{(N+|P)\}.*/ : /\{N+\}.*/, ""), {
    code: at.code ?? "",
    day: at.day,
    serial: 0,
  });
