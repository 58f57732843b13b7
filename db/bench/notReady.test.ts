/** What better waits is said until it is checked, its setting ended, or it has long been sold unchecked. */
import { addDays } from "#core/when";
import { expect, it } from "vitest";
import { readBatch } from "./read.ts";
import { checkBatch } from "./check.ts";
import { endSetting } from "./events.ts";
import { notReady } from "./notReady.ts";
import { pour } from "./pour.ts";
import { mg } from "#core/measure/exact";
import { today } from "../clock.ts";
import { db, eachTestHasAWorkshop, filled, finished, idIn, put, token } from "../test/workshop.ts";

eachTestHasAWorkshop();

it("says that a lot still sets, then that nobody has checked it, then nothing", async () => {
  const now = today();
  const batchId = idIn(await put(2, { token: token() }));
  const takes = (await readBatch(db, batchId))!.takes.map((t) => ({ ...t, weighed: t.planned }));
  await pour(db, { batchId, takes, sizes: filled(2), leftover: mg(0), minutes: 9, note: "" }, { day: now, token: token() });
  const [old, fresh] = await finished();
  const said = async (day = now) => [...(await notReady(db, [old!.id, fresh!.id], day))];
  expect(await said()).toEqual([[fresh!.id, "still sets"]]);
  await endSetting(db, batchId);
  expect((await said()).map(([id, say]) => [id, say.slice(0, 11)])).toEqual([[fresh!.id, "was poured "]]);
  expect(await said(addDays(now, 14))).toEqual([]);
  const found = { face: "smooth", scent: "right", closes: "right", labelled: 2, firm: null } as const;
  await checkBatch(db, { batchId, ...found, verdict: "release", note: "" }, { day: now });
  expect(await said()).toEqual([]);
});
