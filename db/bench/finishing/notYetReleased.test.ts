/** A lot that should wait is named until it is checked, has set, or has long been sold unchecked. */
import { addDays } from "#core/when";
import { expect, it } from "vitest";
import { readBatch } from "../read.ts";
import { checkBatch } from "./check.ts";
import { endSetting } from "../weighing/events.ts";
import { notYetReleased } from "./notYetReleased.ts";
import { pour } from "./pour.ts";
import { mg } from "#core/measure/exact";
import { comeBack } from "../../cabinet/comeBack.ts";
import { today } from "../../clock.ts";
import { saveGiftOrder } from "../../gifts/gifts.ts";
import { packGiftOrder } from "../../gifts/pack.ts";
import { workItems } from "../../today/today.ts";
import { euro } from "#test/db/fresh";
import { db, eachTestHasAWorkshop, filled, finished, idIn, ids, put, token } from "#test/db/workshop";

eachTestHasAWorkshop();

it("says that a lot still sets, then that nobody has checked it, then nothing", async () => {
  const now = today();
  const batchId = idIn(await put(2, { token: token() }));
  const takes = (await readBatch(db, batchId))!.takes.map((t) => ({ ...t, weighed: t.planned }));
  await pour(db, { batchId, takes, sizes: filled(2), leftover: mg(0), minutes: 9, note: "" }, { day: now, token: token() });
  const [old, fresh] = await finished();
  const waits = async () => (await workItems(db, now)).filter((w) => w.kind.startsWith("out")).map((w) => [w.kind, w.number, w.amount]);
  // In the cabinet it only sets; with somebody, Today says so, until it is back.
  expect(await waits()).toEqual([]);
  const order = { customer: "Choir", due: now, extra: euro(0), discountBp: 0, wrapMinutes: 0, note: "", wrapping: [] };
  const saved = await saveGiftOrder(db, { ...order, items: [{ productId: ids.product, units: 2, price: euro(9) }] }, { day: now });
  await packGiftOrder(db, { id: idIn(saved), only: [{ line: 0, lotId: fresh!.id }] }, { day: now });
  expect(await waits()).toEqual([["outSetting", fresh!.number, 2]]);
  const back = { lotId: fresh!.id, fate: "kept", from: { orderId: idIn(saved), dayId: null }, note: "soft" } as const;
  await comeBack(db, { ...back, units: 1 }, { day: now });
  const said = async (day = now) => [...(await notYetReleased(db, [old!.id, fresh!.id], day))];
  expect(await said()).toEqual([[fresh!.id, "still sets"]]);
  await endSetting(db, batchId);
  expect(await waits()).toEqual([["outUnchecked", fresh!.number, 1]]);
  expect((await said()).map(([id, say]) => [id, say.slice(0, 11)])).toEqual([[fresh!.id, "was poured "]]);
  expect(await said(addDays(now, 14))).toEqual([]);
  const found = { face: "smooth", scent: "right", closes: "right", labelled: 2, firm: null } as const;
  await checkBatch(db, { batchId, ...found, verdict: "release", note: "" }, { day: now });
  expect(await said()).toEqual([]);
  expect(await waits()).toEqual([]);
});
