/** Two windows at the same jars and lots: one act wins, the other says why, and the ledger stays true. */
import { mg } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { beforeEach, expect, it } from "vitest";
import { noteCount, postStocktake } from "../shelf/counting/stocktake.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { arrive, receive } from "../shelf/receipts/receive.ts";
import { readReceipt } from "../shelf/receipts/receipts.ts";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { buy, DAY, db, eachTestHasAWorkshop, idIn, ids, jarOf, lotsOf, onHand, token } from "#test/db/workshop";
import { fillJar, topUp } from "./fill.ts";
import { readJar, steepingJars } from "./read.ts";
import { spoilJar, strainJar } from "./strain.ts";

eachTestHasAWorkshop();

const doing = () => ({ day: DAY, token: token() });
let herb: number;
beforeEach(async () => {
  herb = idIn(await saveMaterial(db, { name: "Mint", kind: "herb", densities: {} }, doing()));
  await buy(herb, 100_000, 5);
});

const fill = async (grams: number, at = token()) =>
  fillJar(
    db,
    jarOf([
      { role: "herb", materialId: herb, lotId: (await lotsOf(herb))[0]!.id, cut: "cut", qty: mg(1000) },
      { role: "carrier", materialId: ids.oil, lotId: (await lotsOf(ids.oil))[0]!.id, cut: null, qty: mg(grams * 1000) },
    ]),
    { token: at },
  );
/** What became of acts begun at the same moment: done, or the words of the refusal. */
const together = async (...acts: (() => Promise<unknown>)[]): Promise<string[]> =>
  (await Promise.allSettled(acts.map((a) => a()))).map((r) => {
    if (r.status === "fulfilled") return "done";
    if (r.reason instanceof Refused) return r.reason.message;
    throw r.reason;
  });

it("two jars that both count on the last of an oil: one is filled", async () => {
  const said = await together(
    () => fill(1500),
    () => fill(1500),
  );
  expect(said.filter((s) => s === "done")).toHaveLength(1);
  expect(said.find((s) => s !== "done")).toMatch(/less than this takes|just used that stock|at once/);
  expect(await onHand(ids.oil)).toBe(300_000);
  expect(await steepingJars(db)).toHaveLength(1);
  await expectLedgerTrue(db);
});

it("one press that is posted twice fills one jar", async () => {
  const at = token();
  expect(
    await together(
      () => fill(100, at),
      () => fill(100, at),
    ),
  ).toEqual(["done", "done"]);
  expect(await steepingJars(db)).toHaveLength(1);
  expect(await onHand(ids.oil)).toBe(1_700_000);
});

it("a jar strained, topped up and written off at the same moment ends one way only", async () => {
  const id = idIn(await fill(500));
  const [oil] = await lotsOf(ids.oil);
  const said = await together(
    () =>
      strainJar(
        db,
        { jarId: id, back: mg(400_000), secondBack: null, sediment: mg(0), herbOut: null, pressed: false, bottles: [mg(400_000)] },
        doing(),
      ),
    () => spoilJar(db, { jarId: id, why: "mould" }, doing()),
    () => topUp(db, { jarId: id, lotId: oil!.id, qty: mg(1000) }, doing()),
  );
  const j = (await readJar(db, id))!.jar;
  expect([j.strainedActId, j.spoiledActId].filter((x) => x !== null)).toHaveLength(1);
  expect(said.slice(0, 2).filter((s) => s === "done")).toHaveLength(1);
  await expectLedgerTrue(db);
});

it("packs that arrive in two windows arrive once", async () => {
  const line = {
    materialId: ids.wax,
    supplierLot: "",
    packs: 2,
    arrived: 0,
    packSize: "1 kg",
    qty: 2_000_000,
    price: euro(20),
    bestBefore: null,
  };
  const receipt = idIn(await receive(db, { supplier: "Mill", day: DAY, postage: euro(0), lines: [line] }, {}));
  const lineId = (await readReceipt(db, receipt))!.lines[0]!.line.id;
  const one = () => arrive(db, { lineId, packs: 2, supplierLot: "", bestBefore: null }, doing());
  const said = await together(one, one);
  expect(said.filter((s) => s === "done")).toHaveLength(1);
  expect(await onHand(ids.wax)).toBe(450_000 + 2_000_000);
  await expectLedgerTrue(db);
});

it("a stock-take posted while a jar is filled either comes first or asks for a new count", async () => {
  const [oil] = await lotsOf(ids.oil);
  await noteCount(db, oil!.id, 1_700_000, "");
  const said = await together(
    () => postStocktake(db, {}, doing()),
    () => fill(100),
  );
  expect(said[1]).toBe("done");
  expect(await onHand(ids.oil)).toBe(said[0] === "done" ? 1_600_000 : 1_700_000);
  await expectLedgerTrue(db);
});
