/** Saves each bench event at once: a weighing, a step, a warmth, a timer. None is an act until the batch is poured. */
import { BENCH_EVENTS, WEIGHED_BY } from "#core/batch/weighing/events";
import { readWeighed } from "#core/measure/read";
import { readMeasure } from "#core/batch/planning/parts";
import { matchBatch, fixPot, nextLot, standInFor } from "#db/bench/weighing/match";
import { ladleOut } from "#db/bench/parts/ladle";
import { once } from "#db/once";
import { rejoinPart, splitPart } from "#db/bench/parts/parts";
import { noteEvent, settleEvent } from "#db/bench/weighing/events";
import { addSample, strikeSample } from "#db/bench/weighing/samples";
import { countFilled, weighOne, weighVessel } from "#db/bench/weighing/weigh";
import { data } from "react-router";
import { array, number, object, type AnyObjectSchema, type InferType } from "yup";
import type { Db } from "#db/client";
import { db } from "../../server/workshop.server.ts";
import { idField, noteText, oneOf, optional, reads, wholeNumber, requiredText } from "../../forms/fields.ts";
import { background } from "../../forms/beside/background.ts";
import { idOf } from "../../forms/ids.ts";
import { spoonVerdict } from "../felt.ts";
import { withRefusals, pressedSheet, type Reply } from "../../forms/sheet.server.ts";
import type { Route } from "./+types/benchEvents";

const WEIGHED_IDS = Object.keys(WEIGHED_BY) as (keyof typeof WEIGHED_BY)[];
/** What a hand writes down; setting starts with pouring, a photo comes with its file. */
const EVENT_IDS = (Object.keys(BENCH_EVENTS) as (keyof typeof BENCH_EVENTS)[]).filter((k) => k !== "set" && k !== "photo");
const line = { position: wholeNumber(0, 1000, "lines"), lotId: idField(), nth: wholeNumber(0, 1000, "lines", 0), by: oneOf(WEIGHED_IDS) };
const weigh = object({ ...line, weighed: optional(readWeighed), was: optional(readWeighed) });
const off = object({ ...line, weighed: reads(readWeighed) });
const standIn = off.shape({ materialId: idField(), amount: reads(readWeighed) });
const mend = object({
  had: wholeNumber(0, 1000, "lines"),
  lines: array()
    .of(object({ position: line.position, lotId: line.lotId, nth: line.nth, amount: reads(readWeighed) }))
    .max(40)
    .default([]),
  others: array()
    .of(object({ materialId: idField(), amount: reads(readWeighed) }))
    .max(4)
    .default([]),
  said: noteText(300),
  verdict: spoonVerdict,
});
const filled = object({ sizeId: idField(), units: wholeNumber(0, 10_000, "units", 0), was: wholeNumber(0, 10_000, "units", 0) });
const ladle = object({ sizeId: idField(), weighed: optional(readWeighed), was: optional(readWeighed) });
const vessel = object({ vessel: optional(readWeighed) });
const figure = (least: number, most: number) => number().min(least).max(most).nullable().default(null);
const event = object({
  kind: oneOf(EVENT_IDS),
  step: figure(0, 500),
  celsius: figure(-40, 300),
  minutes: figure(0, 10_080),
  verdict: spoonVerdict,
  weight: optional(readWeighed),
  note: noteText(300),
});
const sample = object({ sizeId: idField(), net: reads(readWeighed), by: oneOf(WEIGHED_IDS) });
const one = object({ id: idField() });
const part = object({
  sizeId: idField(),
  name: requiredText("what it is called", 40),
  units: wholeNumber(1, 10_000, "units"),
  additions: array()
    .of(object({ material: requiredText("what is stirred in", 200), measure: reads(readMeasure) }))
    .min(1)
    .max(12)
    .required(),
});
const settle = object({ id: idField(), how: oneOf(["end", "strike"] as const) });

/** What each button is read by, and what it does. */
const does = <S extends AnyObjectSchema>(
  schema: S,
  work: (db: Db, sheet: InferType<S> & { batchId: number }, day: string) => Promise<void>,
) => ({
  schema: schema.shape(background),
  work: work as (db: Db, sheet: object, day: string) => Promise<void>,
});
const DOES = {
  weigh: does(weigh, weighOne),
  match: does(off, matchBatch),
  nextLot: does(off, nextLot),
  standIn: does(standIn, standInFor),
  mend: does(mend, fixPot),
  filled: does(filled, countFilled),
  vessel: does(vessel, (d, { batchId, vessel: weighed }) => weighVessel(d, batchId, weighed)),
  sample: does(sample, addSample),
  strikeSample: does(one, (d, { batchId, id }) => strikeSample(d, batchId, id)),
  settle: does(settle, (d, { batchId, id, how }) => settleEvent(d, batchId, id, how)),
  part: does(part, splitPart),
  ladle: does(ladle, ladleOut),
  join: does(one, (d, { batchId, id }) => rejoinPart(d, batchId, id)),
  event: does(event, noteEvent),
};
const INTENTS = Object.keys(DOES) as (keyof typeof DOES)[];

export async function action({ request, params }: Route.ActionArgs) {
  const batchId = idOf(params.id);
  const pressed = await pressedSheet(request, INTENTS);
  if (!pressed.ok) return pressed.reply;
  const { schema, work } = DOES[pressed.intent];
  const sheet = await pressed.read(schema as AnyObjectSchema);
  if (!sheet.ok) return sheet.reply;
  const { key, late: _, ...value } = sheet.value as { key?: string; late?: boolean };
  return withRefusals(async () => {
    await once(db(), key, (d) => work(d, { batchId, ...value }, pressed.doing.day));
    return data<Reply>({ problems: [] });
  });
}
