/** What was there before the books began: its lots, what they cost, and what follows once that is known. */
import { asc, eq } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { reverseAct } from "../../acts/reverse.ts";
import { replacementCosts, lotsOfMaterials } from "../../ledger/lots.ts";
import { lot, material } from "../../schema.ts";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { buy, DAY, db, eachTestHasAWorkshop, finished, ids, lotsOf, make, refused, token } from "#test/db/workshop";
import { materialNames } from "../../names.ts";
import { openingStock, sayCost, type OpeningLineIn } from "./opening.ts";
import { materialsWithoutLots } from "../materials.ts";

eachTestHasAWorkshop();

const doing = () => ({ day: DAY, token: token() });
const line = (over: Partial<OpeningLineIn>): OpeningLineIn => ({
  materialId: ids.oil,
  qty: 300_000,
  cost: euro(3),
  costKnown: "paid",
  supplierLot: "",
  bought: null,
  bestBefore: null,
  ...over,
});
const value = async (materialId: number, number: string) => (await lotsOf(materialId)).find((l) => l.number === number)!.value;

describe("opening stock", () => {
  it("becomes a lot for each line, of the library's materials too, with the day it was bought and how its cost is known", async () => {
    await openingStock(
      db,
      {
        add: [{ libraryKey: "jojoba" }],
        lines: [
          line({ materialId: -1, qty: 250_000, cost: euro(9), bought: "2026-01-10" }),
          line({ materialId: -1, qty: 100_000, cost: euro(5), costKnown: "none", supplierLot: "L-7", bestBefore: "2027-02-01" }),
          line({ materialId: ids.tin, qty: 12, cost: euro(6), costKnown: "guessed" }),
        ],
      },
      doing(),
    );
    const [jojoba] = await db.select().from(material).where(eq(material.libraryKey, "jojoba"));
    const lots = await db.select().from(lot).where(eq(lot.materialId, jojoba!.id)).orderBy(asc(lot.id));
    // What keeps so many months does so from the day it was bought.
    expect(lots.map((l) => [l.arrived, l.bestBy, l.onHand, l.value, l.costKnown])).toEqual([
      ["2026-01-10", "keeping", 250_000, euro(9), "paid"],
      [DAY, "printed", 100_000, 0, "none"],
    ]);
    expect(lots[0]!.bestBefore! > "2027-01-01").toBe(true);
    expect((await lotsOfMaterials(db, [ids.tin])).map((l) => l.costKnown)).toEqual(["paid", "guessed"]);
    const jojobaName = (await materialNames(db)).find((m) => m.name === jojoba!.name);
    expect(jojobaName).toMatchObject({ onHand: 350_000, value: euro(9), lots: 2 });
    expect(await materialsWithoutLots(db, 9)).toEqual([]);
    await expectLedgerTrue(db);
  });

  it("is what a material costs to have again only until something was bought; what has no cost never is", async () => {
    const fresh = (await db.insert(material).values({ name: "Rose oil", kind: "oil" }).returning())[0]!.id;
    await openingStock(db, { add: [], lines: [line({ materialId: fresh, costKnown: "none" })] }, doing());
    expect((await replacementCosts(db, [fresh])).get(fresh)).toBeUndefined();
    await openingStock(db, { add: [], lines: [line({ materialId: fresh, qty: 1000, cost: euro(1), costKnown: "guessed" })] }, doing());
    expect((await replacementCosts(db, [fresh])).get(fresh)).toEqual({ value: euro(1), per: 1000 });
    await buy(fresh, 1000, 7);
    expect((await replacementCosts(db, [fresh])).get(fresh)).toEqual({ value: euro(8.01), per: 1000 });
  });

  it("nothing is kept where a line can't be", async () => {
    const before = await db.$count(lot);
    expect(await refused(openingStock(db, { add: [], lines: [] }, doing()))).toMatchObject([{ field: "" }]);
    expect(await refused(openingStock(db, { add: [], lines: [line({}), line({ materialId: 999 })] }, doing()))).toMatchObject([
      { field: "lines.1.material" },
    ]);
    expect(await refused(openingStock(db, { add: [], lines: [line({ bought: "2026-05-05" })] }, doing()))).toMatchObject([
      { field: "lines.0.bought" },
    ]);
    expect(await refused(openingStock(db, { add: [{ name: "Oil", kind: "oil" }], lines: [line({})] }, doing()))).toHaveLength(1);
    expect(await db.$count(lot)).toBe(before);
  });
});

describe("saying what it cost, later", () => {
  it("what was made of it follows to the micro, and goes back when that is taken back", async () => {
    // Used first, since its day is the soonest.
    await openingStock(db, { add: [], lines: [line({ qty: 160_000, costKnown: "none", bestBefore: "2026-09-01" })] }, doing());
    const old = (await lotsOf(ids.oil)).find((l) => l.bestBefore === "2026-09-01")!;
    await make(4);
    const [made] = (await finished()).slice(-1);
    const without = made!.value;
    const said = await sayCost(db, { lotId: old.id, cost: euro(16), costKnown: "guessed" }, doing());
    // All of it went into that batch.
    expect((await finished()).at(-1)!.value - without).toBe(euro(16));
    expect(await value(ids.oil, old.number)).toBe(0);
    await sayCost(db, { lotId: old.id, cost: euro(20), costKnown: "paid" }, doing());
    expect((await finished()).at(-1)!.value - without).toBe(euro(20));
    expect(await refused(reverseAct(db, said.actId, doing()))).toHaveLength(1);
    await expectLedgerTrue(db);
  });

  it("not of a lot whose cost is on its receipt, or in its batch", async () => {
    const [bought] = await lotsOf(ids.oil);
    const no = await refused(sayCost(db, { lotId: bought!.id, cost: euro(1), costKnown: "paid" }, doing()));
    expect(no).toMatchObject([{ field: "cost" }]);
    expect(no[0]!.say).toContain("receipt");
    await make(2);
    const [poured] = await finished();
    const asked = sayCost(db, { lotId: poured!.id, cost: euro(1), costKnown: "paid", ofOne: true }, doing());
    expect((await refused(asked))[0]!.say).toContain("what went into its batch");
  });
});
