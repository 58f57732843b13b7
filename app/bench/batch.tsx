/** One batch: its weigh sheet while it is on the bench, its record once it is poured. */
import { Refused } from "#core/refused";
import { today } from "#db/clock";
import { batchResult, pour } from "#db/bench/pour";
import { readBatch } from "#db/bench/read";
import { clearBatch, saveWeighed } from "#db/bench/setOut";
import { readSettings } from "#db/settings";
import { data, redirect } from "react-router";
import { array, object } from "yup";
import { db } from "../db.server.ts";
import { idOf } from "../forms/ids.ts";
import { idField, note, optional, readWeighed, reads, wholeNumber } from "../forms/fields.ts";
import { act, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { BatchRecord } from "./record.tsx";
import { WeighSheet } from "./weighSheet.tsx";
import type { Route } from "./+types/batch";

export const meta: Route.MetaFunction = ({ data: d }) => [
  { title: `${(d as { sheet?: { recipe: { name: string } } } | undefined)?.sheet?.recipe.name ?? "Batch"} · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const [sheet, settings] = await Promise.all([readBatch(db(), idOf(params.id)), readSettings(db())]);
  if (!sheet) throw new Response("Not found", { status: 404 });
  if (sheet.batch.clearedActId !== null) throw redirect("/bench");
  return {
    sheet,
    result: await batchResult(db(), sheet.batch),
    scaleStep: settings.scaleStep,
    rates: { hourly: settings.hourly, overheadHourly: settings.overheadHourly },
    token: crypto.randomUUID(),
  };
}

const takeSchema = object({
  position: wholeNumber(0, 1000, "lines"),
  materialId: idField(),
  lot: idField(),
  planned: reads(readWeighed),
  weighed: optional(readWeighed),
});
const weighSchema = object({
  intent: note(20),
  takes: array().of(takeSchema).min(1).required(),
  units: note(12),
  leftover: note(20),
  minutes: note(12),
  note: note(),
});
const pourSchema = weighSchema.shape({
  units: wholeNumber(1, 10_000, "units filled"),
  leftover: reads((t) => readWeighed(t.trim() === "" ? "0" : t)),
  minutes: wholeNumber(0, 6000, "minutes", 0),
});

export async function action({ request, params }: Route.ActionArgs) {
  const batchId = idOf(params.id);
  const again = request.clone();
  const draft = await readSheet(request, weighSchema);
  if (!draft.ok) return draft.reply;
  const takes = draft.value.takes.map(({ lot, ...t }) => ({ ...t, lotId: lot }));
  if (draft.value.intent === "clear") return act(() => clearBatch(db(), batchId, { day: today(), token: draft.token }));
  if (draft.value.intent !== "pour") {
    try {
      await saveWeighed(db(), batchId, takes);
      return data({ problems: [] });
    } catch (e) {
      if (e instanceof Refused) return refuseSheet(e.problems);
      throw e;
    }
  }
  const sheet = await readSheet(again, pourSchema);
  const open = takes.flatMap((t, i) =>
    t.weighed === null ? [{ field: `takes.${i}.weighed`, say: "Weigh this first; 0 if it was left out." }] : [],
  );
  if (!sheet.ok || open.length > 0) return refuseSheet([...(sheet.ok ? [] : sheet.reply.data.problems), ...open]);
  const { units, leftover, minutes } = sheet.value;
  return act(() =>
    pour(
      db(),
      { batchId, takes: takes.map((t) => ({ ...t, weighed: t.weighed! })), units, leftover, minutes, note: sheet.value.note },
      { day: today(), token: sheet.token },
    ),
  );
}

export default function Batch({ loaderData }: Route.ComponentProps) {
  const { sheet, result, scaleStep, rates, token } = loaderData;
  return result ? (
    <BatchRecord sheet={sheet} result={result} />
  ) : (
    <WeighSheet key={sheet.batch.id} sheet={sheet} scaleStep={scaleStep} rates={rates} token={token} />
  );
}
