/**
 * Fields of a sheet, as Yup schemas that read what was typed with the core's own readers and keep their words for problems.
 */
import { parseNumber } from "#core/measure/parse";
import { micros, type Micros } from "#core/measure/exact";
import { between, parseMoney } from "#core/measure/read";
import { writeNumber } from "#core/numbers";
import { done, refuse, type Outcome } from "#core/outcome";
import { readDay } from "#core/when";
import { Schema, setLocale } from "yup";
import { idOf } from "./ids.ts";

const UNREAD = "This could not be read. Reload the page and try again.";
// Where a sheet hasn't even the right shape, the message is ours, not the validator's.
setLocale({
  mixed: { default: UNREAD, required: UNREAD, defined: UNREAD, notNull: UNREAD, notType: UNREAD, oneOf: UNREAD },
  array: { min: UNREAD, max: UNREAD, length: UNREAD },
  object: { noUnknown: UNREAD },
});

const textOf = (posted: unknown): string =>
  typeof posted === "string" || typeof posted === "number" ? String(posted).replaceAll("\0", "") : "";

/** A kind of schema as Yup's own are: what is posted becomes what a core function reads in it, and the function's words are the error. */
class ReadSchema<T> extends Schema<T> {
  constructor(read: (text: string) => Outcome<T>) {
    super({ type: "text that is read", check: (_value): _value is NonNullable<T> => true });
    const valueOf = (posted: unknown): T | undefined => {
      const r = read(textOf(posted));
      return r.ok ? r.value : undefined;
    };
    this.withMutation((schema) => {
      schema.nullable();
      schema.transform((_value, posted: unknown) => valueOf(posted));
      schema.default(() => valueOf(""));
      schema.test("reads", (_value, context) => {
        const r = read(textOf(context.originalValue));
        return r.ok || context.createError({ message: r.problem.say });
      });
    });
  }
}

/** A field read by a core function; one that is missing from the sheet reads as empty. @example reads(parseMoney) */
export const reads = <T>(read: (text: string) => Outcome<T>): Schema<T> => new ReadSchema(read);

const blank = (text: string): boolean => text.trim() === "";

/** Empty means null. */
export const optional = <T>(read: (text: string) => Outcome<T>) => reads<T | null>((text) => (blank(text) ? done(null) : read(text)));

/** Empty means zero. */
export const moneyOr0 = () => reads<Micros>((text) => (blank(text) ? done(micros(0)) : parseMoney(text)));

/** A whole number between two. @example wholeNumber(1, 9999, "units") */
export const wholeNumber = (least: number, most: number, what: string, empty?: number) =>
  reads<number>((text) => {
    if (blank(text)) return empty === undefined ? refuse("empty", `Enter how many ${what}.`) : done(empty);
    const n = parseNumber(text, "asked");
    if (!n.ok) return n;
    const value = n.value.valueOf();
    if (!Number.isInteger(value)) return refuse("whole", `Enter a whole number of ${what}.`);
    if (value < least) return refuse("least", least === 1 ? "Enter at least 1." : `Enter ${least} or more.`);
    return value > most
      ? refuse("most", `${writeNumber(value, 0, 0)} ${what} can't be right; the most here is ${writeNumber(most, 0, 0)}.`)
      : done(value);
  });

/** A number between two as a field (`between`); empty means `empty` where that is given. */
export const scaled = (least: number, most: number, what: string, scale: number, empty?: number) =>
  reads<number>((text) => (blank(text) && empty !== undefined ? done(empty) : between(least, most, what, scale)(text)));

/** One of a list of choices. */
export const oneOf = <T extends string>(choices: readonly T[]) =>
  reads<T>((text) => ((choices as readonly string[]).includes(text) ? done(text as T) : refuse("choice", "Choose one of the list.")));

export const dayField = () => reads(readDay);
export const optionalDay = () => optional(readDay);

const within = (text: string, most: number): Outcome<string> =>
  text.length > most ? refuse("long", `Keep it under ${most} characters.`) : done(text);

/** Text that must be there, with a limit. */
export const requiredText = (what: string, most = 120) =>
  reads((text) => (blank(text) ? refuse("empty", `Enter ${what}.`) : within(text.trim(), most)));
export const noteText = (most = 2000) => reads((text) => within(text.trim(), most));
/** The number of a record. */
export const idField = () => reads((text) => done(idOf(text)));
