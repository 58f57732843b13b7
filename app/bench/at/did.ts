/** What is done at the bench, as it is done: a weighing, a step, a warmth, a timer. Kept at once, and no act until it is poured. */
import { BENCH_EVENTS, WEIGHED_BY } from "#core/batch/events";
import { readWeighed } from "#core/measure/read";
import { readMeasure } from "#core/batch/parts";
import { matchBatch, mendPot, nextLot, standInFor } from "#db/bench/match";
import { joinBack, partOff } from "#db/bench/parts";
import { noteEvent, settleEvent } from "#db/bench/events";
import { addSample, strikeSample } from "#db/bench/samples";
import { countFilled, weighOne, weighVessel } from "#db/bench/weigh";
import { data } from "react-router";
import { array, number, object } from "yup";
import { db } from "../../db.server.ts";
import { idField, note, oneOf, optional, reads, wholeNumber, words } from "../../forms/fields.ts";
import { idOf } from "../../forms/ids.ts";
import { spoonSaid } from "../felt.ts";
import { asked, pressedSheet, type Reply } from "../../forms/sheet.server.ts";
import type { Route } from "./+types/did";

const WEIGHED_IDS = Object.keys(WEIGHED_BY) as (keyof typeof WEIGHED_BY)[];
/** What a hand writes down; that it sets comes of pouring, a photo of keeping one. */
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
  said: note(300),
  verdict: spoonSaid,
});
const filled = object({ sizeId: idField(), units: wholeNumber(0, 10_000, "units", 0), was: wholeNumber(0, 10_000, "units", 0) });
const vessel = object({ vessel: optional(readWeighed) });
const figure = (least: number, most: number) => number().min(least).max(most).nullable().default(null);
const event = object({
  kind: oneOf(EVENT_IDS),
  step: figure(0, 500),
  celsius: figure(-40, 300),
  minutes: figure(0, 10_080),
  verdict: spoonSaid,
  weight: optional(readWeighed),
  note: note(300),
});
const sample = object({ sizeId: idField(), net: reads(readWeighed), by: oneOf(WEIGHED_IDS) });
const one = object({ id: idField() });
const part = object({
  sizeId: idField(),
  name: words("what it is called", 40),
  units: wholeNumber(1, 10_000, "units"),
  additions: array()
    .of(object({ material: words("what is stirred in", 200), measure: reads(readMeasure) }))
    .min(1)
    .max(12)
    .required(),
});
const settle = object({ id: idField(), how: oneOf(["end", "strike"] as const) });

const kept = () => data<Reply>({ problems: [] });

const INTENTS = [
  ...(["weigh", "match", "nextLot", "standIn", "mend", "filled", "vessel", "sample", "strikeSample", "settle", "part", "join"] as const),
  "event",
] as const;

export async function action({ request, params }: Route.ActionArgs) {
  const batchId = idOf(params.id);
  const pressed = await pressedSheet(request, INTENTS);
  if (!pressed.ok) return pressed.reply;
  const { intent, doing } = pressed;
  if (intent === "weigh") {
    const sheet = await pressed.read(weigh);
    return sheet.ok ? asked(async () => weighOne(db(), { batchId, ...sheet.value }).then(kept)) : sheet.reply;
  }
  if (intent === "match" || intent === "nextLot") {
    const mends = intent === "match" ? matchBatch : nextLot;
    const sheet = await pressed.read(off);
    return sheet.ok ? asked(async () => mends(db(), { batchId, ...sheet.value }, doing.day).then(kept)) : sheet.reply;
  }
  if (intent === "standIn") {
    const sheet = await pressed.read(standIn);
    return sheet.ok ? asked(async () => standInFor(db(), { batchId, ...sheet.value }, doing.day).then(kept)) : sheet.reply;
  }
  if (intent === "mend") {
    const sheet = await pressed.read(mend);
    return sheet.ok ? asked(async () => mendPot(db(), { batchId, ...sheet.value }, doing.day).then(kept)) : sheet.reply;
  }
  if (intent === "filled") {
    const sheet = await pressed.read(filled);
    return sheet.ok ? asked(async () => countFilled(db(), { batchId, ...sheet.value }).then(kept)) : sheet.reply;
  }
  if (intent === "vessel") {
    const sheet = await pressed.read(vessel);
    return sheet.ok ? asked(async () => weighVessel(db(), batchId, sheet.value.vessel).then(kept)) : sheet.reply;
  }
  if (intent === "sample") {
    const sheet = await pressed.read(sample);
    return sheet.ok ? asked(async () => addSample(db(), { batchId, ...sheet.value }).then(kept)) : sheet.reply;
  }
  if (intent === "strikeSample") {
    const sheet = await pressed.read(one);
    return sheet.ok ? asked(async () => strikeSample(db(), batchId, sheet.value.id).then(kept)) : sheet.reply;
  }
  if (intent === "settle") {
    const sheet = await pressed.read(settle);
    return sheet.ok ? asked(async () => settleEvent(db(), batchId, sheet.value.id, sheet.value.how).then(kept)) : sheet.reply;
  }
  if (intent === "part") {
    const sheet = await pressed.read(part);
    return sheet.ok ? asked(async () => partOff(db(), { batchId, ...sheet.value }, doing.day).then(kept)) : sheet.reply;
  }
  if (intent === "join") {
    const sheet = await pressed.read(one);
    return sheet.ok ? asked(async () => joinBack(db(), batchId, sheet.value.id).then(kept)) : sheet.reply;
  }
  const sheet = await pressed.read(event);
  return sheet.ok ? asked(async () => noteEvent(db(), { batchId, ...sheet.value }).then(kept)) : sheet.reply;
}
