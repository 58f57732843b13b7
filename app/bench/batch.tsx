/** One batch: its weigh sheet while it is on the bench, its record once it is poured. */
import { CLOSURE_IDS, FACE_IDS, SCENT_IDS } from "#core/batch/finishing/check";
import { restatementsSince } from "#db/acts/book";
import { learnBatch, lessonsOf } from "#db/bench/finishing/nextTime";
import { planOf } from "#db/bench/planning/plan";
import { pour } from "#db/bench/finishing/pour";
import { batchResult } from "#db/bench/finishing/result";
import { checkBatch, checksOf } from "#db/bench/finishing/check";
import { endSetting, eventsOf } from "#db/bench/weighing/events";
import { samplesOf } from "#db/bench/weighing/samples";
import { readBatch } from "#db/bench/read";
import { spoilBatch, spoiledCost } from "#db/bench/finishing/spoil";
import { clearBatch } from "#db/bench/planning/clear";
import { cachedSettings } from "#db/settings/settings";
import { materialsNamed } from "#db/shelf/materials";
import { redirect } from "react-router";
import { array, object } from "yup";
import { db } from "../server/workshop.server.ts";
import { idOf } from "../forms/ids.ts";
import { readWeighed } from "#core/measure/read";
import { done, refuse } from "#core/outcome";
import { idField, noteText, oneOf, optional, reads, wholeNumber, requiredText } from "../forms/fields.ts";
import { mindedIn } from "../shelf/minded.server.ts";
import { openSheet } from "../forms/openSheet.server.ts";
import { runAct, pressedSheet, refuseSheet } from "../forms/sheet.server.ts";
import { actsOf } from "../book/lines.server.ts";
import { spoonVerdict } from "./felt.ts";
import { potIds, potsOf, weighedInOrder } from "./potsOf.ts";
import { BatchRecord } from "./record/record.tsx";
import { SpoiledRecord } from "./record/spoiledRecord.tsx";
import { keptLines, takesOf, weighedLines } from "./sheet/weighed.ts";
import { Resend } from "../forms/beside/resend.tsx";
import { WeighSheet } from "./sheet/weighSheet.tsx";
import type { Route } from "./+types/batch";

export const meta: Route.MetaFunction = ({ loaderData: d }) => [
  { title: `${(d as { sheet?: { recipe: { name: string } } } | undefined)?.sheet?.recipe.name ?? "Batch"} · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const record = { kind: "batch", id } as const;
  const [sheet, settings, seen, book, righted, events, samples, checks] = await Promise.all([
    readBatch(db(), id),
    cachedSettings(db()),
    openSheet(record),
    actsOf(record),
    restatementsSince(db(), "batchId", id),
    eventsOf(db(), id),
    samplesOf(db(), id),
    checksOf(db(), id),
  ]);
  if (!sheet) throw new Response("Not found", { status: 404 });
  if (sheet.batch.clearedActId !== null && sheet.batch.spoiledActId === null) throw redirect("/bench");
  const poured = sheet.batch.pouredActId !== null;
  const [materials, result, lost, plan, taught, minded] = await Promise.all([
    materialsNamed(db(), potIds(sheet), []),
    batchResult(db(), sheet.batch),
    spoiledCost(db(), sheet.batch),
    planOf(db(), sheet),
    poured ? lessonsOf(db(), sheet) : null,
    mindedIn(
      sheet.takes.map((t) => t.materialId),
      new Map(sheet.takes.map((t) => [t.materialId, t.material])),
    ),
  ]);
  const facts = new Map(materials.map((m) => [m.id, m]));
  return {
    sheet: poured ? sheet : { ...sheet, takes: weighedInOrder(sheet, facts) },
    result,
    // For the word at pouring.
    ...potsOf(sheet, facts),
    scale: settings.scale,
    rates: { hourly: settings.hourly, overheadHourly: settings.overheadHourly },
    opened: seen,
    book,
    righted,
    events,
    samples,
    checks,
    lost,
    plan,
    taught: taught && { changes: taught.changes, melted: taught.melted },
    netRule: settings.netRule,
    minded,
  };
}

const spoilSchema = object({ why: requiredText("what went wrong", 300) });
const checkSchema = object({
  face: oneOf(FACE_IDS),
  scent: oneOf(SCENT_IDS),
  closes: oneOf(CLOSURE_IDS),
  labelled: wholeNumber(0, 10_000, "labels", 0),
  firm: spoonVerdict,
  note: noteText(300),
});
const learnSchema = object({ keys: array().of(requiredText("what is to be changed", 60)).required() });
const schema = object({ takes: weighedLines });
const pourSchema = object({
  takes: weighedLines,
  sizes: array()
    .of(object({ productId: idField(), units: wholeNumber(0, 10_000, "units filled", 0) }))
    .required(),
  leftover: reads((t) => readWeighed(t.trim() === "" ? "0" : t)),
  // A sheet that was opened before there was a choice doesn't say.
  leftoverTo: optional((t) => (t === "kept" || t === "gone" ? done(t) : refuse("choice", "Choose one of the two."))),
  minutes: wholeNumber(0, 6000, "minutes of work it took; 0 where none is to be counted"),
  note: noteText(),
  kept: keptLines.required(),
});

export async function action({ request, params }: Route.ActionArgs) {
  const batchId = idOf(params.id);
  const pressed = await pressedSheet(request, ["spoil", "capped", "release", "hold", "learn", "clear", "pour"]);
  if (!pressed.ok) return pressed.reply;
  if (pressed.intent === "spoil") {
    const said = await pressed.read(spoilSchema);
    return said.ok ? runAct(() => spoilBatch(db(), { batchId, why: said.value.why }, said.doing)) : said.reply;
  }
  if (pressed.intent === "capped") {
    await endSetting(db(), batchId);
    return null;
  }
  if (pressed.intent === "release" || pressed.intent === "hold") {
    const found = await pressed.read(checkSchema);
    return found.ok
      ? runAct(() => checkBatch(db(), { batchId, verdict: pressed.intent as "release" | "hold", ...found.value }, found.doing))
      : found.reply;
  }
  if (pressed.intent === "learn") {
    const ticked = await pressed.read(learnSchema);
    return ticked.ok ? runAct(() => learnBatch(db(), { batchId, keys: ticked.value.keys }, ticked.doing)) : ticked.reply;
  }
  if (pressed.intent === "clear") return runAct(() => clearBatch(db(), { batchId }, pressed.doing));
  const lines = await pressed.read(schema);
  if (!lines.ok) return lines.reply;
  const sheet = await pressed.read(pourSchema);
  const takes = takesOf(lines.value.takes);
  const open = takes.flatMap((t, i) =>
    t.weighed === null ? [{ field: `takes.${i}.weighed`, say: "Weigh this first; 0 if it was left out." }] : [],
  );
  if (!sheet.ok || open.length > 0) return refuseSheet([...(sheet.ok ? [] : sheet.reply.data.problems), ...open]);
  const { sizes, leftover, leftoverTo, minutes } = sheet.value;
  const kept = takesOf(sheet.value.kept);
  return runAct(() =>
    pour(
      db(),
      {
        batchId,
        takes: takes.map((t) => ({ ...t, weighed: t.weighed! })),
        sizes,
        leftover,
        keepsLeftover: leftoverTo === "kept",
        minutes,
        note: sheet.value.note,
        kept,
      },
      sheet.doing,
    ),
  );
}

export default function Batch({ loaderData }: Route.ComponentProps) {
  const { sheet, result, book, righted, events, samples, netRule, plan, taught, opened, checks, minded } = loaderData;
  const made = { events, samples, netRule: sheet.batch.netRule ?? netRule };
  if (sheet.batch.spoiledActId !== null) return <SpoiledRecord sheet={sheet} cost={loaderData.lost} book={book} made={made} />;
  return result ? (
    <BatchRecord {...{ sheet, result, plan, taught, opened, book, righted, made, checks, minded }} />
  ) : (
    <Resend>
      <WeighSheet key={`${sheet.batch.id} ${loaderData.opened.seen}`} {...loaderData} />
    </Resend>
  );
}
