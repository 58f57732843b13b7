/** Reading a posted sheet and answering it: problems go back beside their fields, an act done leads on. */
import { EditedMeanwhile, isRefusal, type FieldProblem, type EditConflict } from "#core/refused";
import { DryRunPassed, type ActOptions, type Done } from "#db/act/define";
import { today } from "#db/clock";
import { data, redirect } from "react-router";
import { object, ValidationError, type AnyObjectSchema, type InferType } from "yup";
import { isObject } from "#core/objects";
import { done, refuse } from "#core/outcome";
import { reads } from "./fields.ts";
import type { Meant } from "#core/meant";
import { setFlash } from "./flash.server.ts";
import { meantIn } from "./meanings.ts";
import { postedText, readJson } from "./json.server.ts";

export interface Reply {
  problems: FieldProblem[];
  /** Somebody saved the record meanwhile: what they did, and their sheet as its fields say it. */
  changed?: EditConflict & { theirs: Record<string, unknown> };
}

/** Of several problems of one field the first is the one to show. */
const refusal = (problems: readonly FieldProblem[]) =>
  data<Reply>({ problems: problems.filter((p, i) => problems.findIndex((q) => q.field === p.field) === i) }, { status: 422 });

export type Sheet<S extends AnyObjectSchema> =
  | {
      ok: true;
      value: InferType<S>;
      /** What names of a kind meant when they were typed. */ meant: (of: string) => Meant;
      /** Today, with the sheet's token and the version that was on it. */ doing: ActOptions & { day: string };
    }
  | { ok: false; reply: ReturnType<typeof refusal> };

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

export const tokenIn = (token: unknown): string | undefined => (typeof token === "string" && UUID.test(token) ? token : undefined);

/** What a sheet says besides its fields. */
function doingOf(body: unknown): ActOptions & { day: string } {
  const { token, seen, tried } = body as { token?: unknown; seen?: unknown; tried?: unknown };
  return {
    ...(tried === true ? { dryRun: true } : {}),
    day: today(),
    token: tokenIn(token),
    seen: typeof seen === "number" && Number.isSafeInteger(seen) && seen >= 0 && seen < 2 ** 31 ? seen : null,
  };
}

/** Reads a posted JSON sheet against its schema. */
export async function readSheet<S extends AnyObjectSchema>(request: Request, schema: S): Promise<Sheet<S>> {
  const posted = await readPosted(request);
  return posted.ok ? validateSheet(posted.body, schema) : posted;
}

/** A posted JSON sheet, before it is read against anything. */
export async function readPosted(
  request: Request,
): Promise<{ ok: true; body: unknown } | { ok: false; reply: ReturnType<typeof refusal> }> {
  const json = readJson((await postedText(request)) ?? "");
  return json.ok ? { ok: true, body: json.value } : { ok: false, reply: refusal([{ field: "", say: json.problem.say }]) };
}

/** A sheet's body against its schema. */
export async function validateSheet<S extends AnyObjectSchema>(body: unknown, schema: S): Promise<Sheet<S>> {
  if (!isObject(body))
    return { ok: false, reply: refusal([{ field: "", say: "That sheet could not be read. Reload the page and try again." }]) };
  try {
    const value = (await schema.validate(body, { abortEarly: false, stripUnknown: true })) as InferType<S>;
    return { ok: true, value, meant: (of) => meantIn(body, of), doing: doingOf(body) };
  } catch (e) {
    if (!(e instanceof ValidationError)) throw e;
    const found = e.inner.length > 0 ? e.inner : [e];
    // The first field on the sheet comes first: it gets the focus. A button is no field: its error is shown for the whole sheet.
    const problems = found.map((p) => ({
      field: (p.path === "intent" ? "" : (p.path ?? "")).replace(/\[(\d+)\]/g, ".$1"),
      say: p.message,
    }));
    return { ok: false, reply: refusal(problems) };
  }
}

/** Which button was pressed, of those a sheet has; no other does anything. @example intentOf(["keep", "pack"]) */
export const intentOf = <const I extends string>(known: readonly I[]) =>
  reads<I>((text) =>
    known.includes(text as I)
      ? done(text as I)
      : refuse("intent", "That button isn't known here, and nothing was done. Reload the page and try again."),
  );

/**
 * A sheet with several buttons: which was pressed, and its body to be read against that button's schema.
 * @param known every button it has
 * @example const pressed = await pressedSheet(request, ["keep", "pack"]); const s = await pressed.read(schema)
 */
export async function pressedSheet<const I extends string>(request: Request, known: readonly I[]) {
  const posted = await readPosted(request);
  if (!posted.ok) return posted;
  const read = <S extends AnyObjectSchema>(schema: S) => validateSheet(posted.body, schema);
  const pressed = await read(object({ intent: intentOf(known) }));
  return pressed.ok
    ? { ok: true as const, intent: (pressed.value as { intent: I }).intent, doing: pressed.doing, read }
    : { ok: false as const, reply: pressed.reply };
}

/** Where an act leads, with the note that offers to take it back. */
const leadsTo = async (done: Done, path = done.path) => redirect(path, { headers: await setFlash(done.actId) });

/**
 * Runs a command; its refusals go to the sheet.
 * @param path where to go instead of where the act leads
 * @param theirs the record's sheet as it is now, to be shown beside this one when somebody changed it meanwhile
 */
export async function runAct(work: () => Promise<Done>, how: { path?: (done: Done) => string; theirs?: () => Promise<object> } = {}) {
  try {
    const done = await work();
    return await leadsTo(done, how.path?.(done));
  } catch (e) {
    if (e instanceof EditedMeanwhile && how.theirs)
      return data<Reply>(
        { problems: [...e.problems], changed: { ...e.meanwhile, theirs: (await how.theirs()) as Record<string, unknown> } },
        { status: 409 },
      );
    return refusedOr(e);
  }
}

/** What a command refused, for its sheet; anything else is thrown on. */
function refusedOr(e: unknown): ReturnType<typeof refusal> {
  if (isRefusal(e)) return refusal(e.problems);
  // A dry run passed. Answered as no success, so that no page is read again for it.
  if (e instanceof DryRunPassed) return refusal([]);
  throw e;
}

/** Runs work that is no act; a refusal becomes the sheet's errors. */
export async function withRefusals<T>(work: () => Promise<T>) {
  try {
    return await work();
  } catch (e) {
    return refusedOr(e);
  }
}

/** Answers a sheet with problems found outside its schema. */
export const refuseSheet = refusal;
