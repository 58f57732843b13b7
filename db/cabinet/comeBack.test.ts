/** What comes back from somebody: at what it cost, no more than went out, and how it and what it rests on are taken back. */
import { addDays } from "#core/when";
import { eq } from "drizzle-orm";
import { expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { ledgerFaults } from "../ledger/faults.ts";
import { closeMarketDay } from "../markets/markets.ts";
import { act } from "../schema.ts";
import { euro } from "#test/db/fresh";
import { DAY, db, eachTestHasAWorkshop, finished, idIn, ids, refused } from "#test/db/workshop";
import { takeOut } from "./cabinet.ts";
import { comeBack, type ComeBackIn } from "./comeBack.ts";
import { cabinetOutlook } from "./outlook.ts";

eachTestHasAWorkshop();

const doing = { day: DAY };
const HANDED = { orderId: null, dayId: null };
const balms = async () => (await finished())[0]!;
const back = async (over: Partial<ComeBackIn> = {}) =>
  comeBack(db, { lotId: (await balms()).id, units: 1, fate: "kept", from: HANDED, note: "The lid wouldn't close.", ...over }, doing);
const says = async (work: Promise<unknown>) => (await refused(work))[0]!.say;

it("comes back at what it cost, or is thrown away as it comes; never more than is out", async () => {
  const before = await balms();
  expect(await says(back())).toBe("None of it is out.");
  const gone = await takeOut(db, { lotId: before.id, units: 3, reason: "gift", note: "" }, doing);
  await back({ units: 2 });
  expect(await balms()).toMatchObject({ onHand: 4, value: (before.value / 5) * 4 });
  expect(await says(back({ units: 2 }))).toBe("Only 1 unit of it is out.");
  const thrown = await back({ fate: "thrown" });
  expect(await balms()).toMatchObject({ onHand: 4, value: (before.value / 5) * 4 });
  expect(await says(reverseAct(db, gone.actId, doing))).toMatch(/has come back since/);
  await reverseAct(db, thrown.actId, doing);
  expect((await balms()).onHand).toBe(4);
  expect(await ledgerFaults(db)).toEqual([]);
  const [first] = await db.select().from(act).where(eq(act.kind, "comeBack")).orderBy(act.id);
  await reverseAct(db, first!.id, doing);
  await reverseAct(db, gone.actId, doing);
  expect(await balms()).toMatchObject({ onHand: 5, value: before.value });
  expect(await ledgerFaults(db)).toEqual([]);
});

it("what is damaged comes back from nobody, and what is sold twice over can't have", async () => {
  await takeOut(db, { lotId: (await balms()).id, units: 2, reason: "damaged", note: "" }, doing);
  expect(await says(back())).toBe("None of it is out.");
  await takeOut(db, { lotId: (await balms()).id, units: 1, reason: "own", note: "" }, doing);
  const [one, other] = await Promise.allSettled([back(), back()]);
  expect([one.status, other.status].sort()).toEqual(["fulfilled", "rejected"]);
  expect((await balms()).onHand).toBe(3);
});

it("the cabinet knows its pace once there has been time for one", async () => {
  expect([...(await cabinetOutlook(db, DAY)).paces]).toEqual([[ids.product, null]]);
  const later = addDays(DAY, 40);
  expect((await cabinetOutlook(db, later)).paces.get(ids.product)).toBe(0);
  const { id } = await balms();
  const costs = { stallFee: euro(0), travel: euro(0), byCard: euro(0), cardFeeBp: 0, minutes: 0 };
  const sold = await closeMarketDay(
    db,
    { name: "Green", day: later, note: "", ...costs, lines: [{ lotId: id, taken: 5, sold: 4, given: 1, damaged: 0, price: euro(5) }] },
    { day: later },
  );
  expect((await cabinetOutlook(db, later)).paces.size).toBe(0);
  await comeBack(
    db,
    { lotId: id, units: 1, fate: "kept", from: { orderId: null, dayId: idIn(sold) }, note: "Not what was wished." },
    { day: later },
  );
  expect((await cabinetOutlook(db, later)).paces.get(ids.product)).toBe(4 / 40);
  expect(await says(reverseAct(db, sold.actId, { day: later }))).toMatch(/^Some of what went out|has come back since/);
});
