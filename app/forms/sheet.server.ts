/** Reading a posted sheet and answering it: problems go back beside their fields, an act done leads on. */
import { Refused, type FieldProblem } from "#core/refused";
import type { Done } from "#db/act";
import { data, redirect } from "react-router";
import { object, ValidationError, type AnyObjectSchema, type InferType } from "yup";
import { note } from "./fields.ts";

export interface Reply {
  problems: FieldProblem[];
}

const refusal = (problems: readonly FieldProblem[]) => data<Reply>({ problems: [...problems] }, { status: 422 });

export type Sheet<S extends AnyObjectSchema> =
  { ok: true; value: InferType<S>; token: string | undefined } | { ok: false; reply: ReturnType<typeof refusal> };

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** Reads a posted JSON sheet against its schema. */
export async function readSheet<S extends AnyObjectSchema>(request: Request, schema: S): Promise<Sheet<S>> {
  let body: unknown;
  try {
    body = await request.json();
  } catch {
    return { ok: false, reply: refusal([{ field: "", say: "That sheet could not be read. Reload the page and try again." }]) };
  }
  try {
    const value = (await schema.validate(body, { abortEarly: false, stripUnknown: true })) as InferType<S>;
    const token = (body as { token?: unknown }).token;
    return { ok: true, value, token: typeof token === "string" && UUID.test(token) ? token : undefined };
  } catch (e) {
    if (!(e instanceof ValidationError)) throw e;
    const found = e.inner.length > 0 ? e.inner : [e];
    // The first problem of a field is the one to show, and the first field on the sheet comes first: it gets the focus.
    const byField = new Map<string, string>();
    for (const p of found) {
      const field = (p.path ?? "").replace(/\[(\d+)\]/g, ".$1");
      if (!byField.has(field)) byField.set(field, p.message);
    }
    return { ok: false, reply: refusal([...byField].map(([field, say]) => ({ field, say }))) };
  }
}

/**
 * A sheet with several buttons: which was pressed, and its body to be read against that button's schema.
 * @example const pressed = await pressedSheet(request); const s = await pressed.read(schema)
 */
export async function pressedSheet(request: Request) {
  const body = await request.text();
  const read = <S extends AnyObjectSchema>(schema: S) => readSheet(new Request(request.url, { method: "POST", body }), schema);
  const pressed = await read(object({ intent: note(20) }));
  return pressed.ok
    ? { ok: true as const, intent: pressed.value.intent, token: pressed.token, read }
    : { ok: false as const, reply: pressed.reply };
}

/** Where an act leads, with the note that offers to take it back. */
export const leadsTo = (done: Done, path = done.path) => redirect(`${path}?did=${done.actId}`);

/** Runs a command; what it refuses goes back to the sheet. */
export async function act(work: () => Promise<Done>, path?: (done: Done) => string) {
  return asked(async () => {
    const done = await work();
    return leadsTo(done, path?.(done));
  });
}

/** Does something small that is no act of the ledger; what it refuses goes back to the sheet. */
export async function asked(work: () => Promise<Response>) {
  try {
    return await work();
  } catch (e) {
    if (e instanceof Refused) return refusal(e.problems);
    throw e;
  }
}

/** Answers a sheet with problems found outside its schema. */
export const refuseSheet = refusal;
