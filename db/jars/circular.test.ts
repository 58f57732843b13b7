/** Oils steeped in one another: lots only ever come of earlier lots, so that what goes round among materials ends, is traced once and costs what it cost. */
import { mg, sum } from "#core/measure/exact";
import { addDays } from "#core/when";
import { expect, it } from "vitest";
import { eq } from "drizzle-orm";
import { replacementCosts } from "../ledger/lots.ts";
import { traceLot } from "../lots/trace.ts";
import { costRecipes } from "../recipe/costs.ts";
import { saveRecipe } from "../recipe/save.ts";
import { material } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";
import { saveMaterial } from "../shelf/keepMaterial.ts";
import { expectLedgerTrue } from "#test/db/fresh";
import { balm, buy, DAY, db, eachTestHasAWorkshop, idIn, ids, jarOf, lotsOf } from "#test/db/workshop";
import { fillJar } from "./fill.ts";
import { strainJar } from "./strain.ts";

eachTestHasAWorkshop();

const idOf = async (name: string): Promise<number> =>
  (await db.select({ id: material.id }).from(material).where(eq(material.name, name)))[0]!.id;

it("A in B, B in A, and A in itself", async () => {
  const herb = idIn(await saveMaterial(db, { name: "Mint", kind: "herb", densities: { dried: 100 } }, { day: DAY }));
  await buy(herb, 100_000, 5);
  const steep = async (carrier: number, name: string, day: string): Promise<number> => {
    const [oil] = (await lotsOf(carrier)).filter((l) => l.onHand >= 200_000);
    const [leaf] = await lotsOf(herb);
    const jarId = idIn(
      await fillJar(
        db,
        jarOf(
          [
            { role: "herb", materialId: herb, lotId: leaf!.id, cut: "whole", qty: mg(5_000) },
            { role: "carrier", materialId: carrier, lotId: oil!.id, cut: null, qty: mg(200_000) },
          ],
          { name, day },
        ),
        {},
      ),
    );
    const bottled = { back: mg(200_000), secondBack: null, sediment: mg(0), herbOut: null, pressed: false, bottles: [mg(200_000)] };
    await strainJar(db, { jarId, ...bottled }, { day });
    return idOf(name);
  };
  const a = await steep(ids.oil, "Mint A", DAY);
  const b = await steep(a, "Mint B", addDays(DAY, 1));
  expect(await steep(b, "Mint A", addDays(DAY, 2))).toBe(a);
  expect(await steep(a, "Mint A", addDays(DAY, 3))).toBe(a);

  const [last] = (await lotsOf(a)).filter((l) => l.onHand > 0);
  const { back, inLot } = await traceLot(db, last!.id);
  // Each once: the bought oil, the herb, A, B and A again.
  expect(back.map((s) => s.lot.name).sort()).toEqual(["Mint", "Mint A", "Mint A", "Mint B", "Oil"]);
  expect(inLot.every((l) => l.from < l.to)).toBe(true);
  // All that was ever put in is in the one bottle that is left.
  const spent = sum((await Promise.all([a, b].map(lotsOf))).flat().map((l) => l.value));
  expect(last!.value).toBe(spent);

  const recipe = idIn(
    await saveRecipe(
      db,
      balm({
        name: "Round balm",
        code: "RB",
        lines: [
          { materialId: a, entered: "50 g", form: "liquid", weight: mg(50_000) },
          { materialId: b, entered: "30 g", form: "liquid", weight: mg(30_000) },
          { materialId: ids.wax, entered: "20 g", form: "pellets", weight: mg(20_000) },
        ],
      }),
      { day: DAY },
    ),
  );
  const [costed] = await costRecipes(db, await readSettings(db), addDays(DAY, 4), [recipe]);
  const [inA, inB] = costed!.sizes[0]!.cost.lines;
  expect(inA!.cost.lot).toBe(Math.round(last!.value / 4));
  // B is used up: it costs what its newest straining did.
  const again = (await replacementCosts(db, [b])).get(b)!;
  expect(inB!.cost.again).toBe(Math.round((again.value * 30_000) / again.per));
  expect(costed!.sizes[0]!.cost.perUnit.again!.total).toBeGreaterThan(0);
  await expectLedgerTrue(db);
});
