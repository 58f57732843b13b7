/**
 * Loads the demo workshop by doing what a maker would have done, day by day, through the same commands the application uses.
 */
import { massOf } from "#core/measure/mass";
import { parseAmount } from "#core/measure/parse";
import { KINDS } from "#core/material/kinds";
import { libraryEntry } from "#core/material/library";
import { STARTING_SETTINGS } from "#core/settings/settings";
import { addDays, addMonths, type Day } from "#core/when";
import { takeOut } from "#db/cabinet/cabinet";
import type { Db } from "#db/client";
import { lotsOfMaterials } from "#db/ledger/lots";
import { saveSettings } from "#db/settings/settings";
import { correctCount } from "#db/shelf/counting/count";
import { materialFromLibrary, saveMaterial, type MaterialIn } from "#db/shelf/keepMaterial";
import { receive } from "#db/shelf/receipts/receive";
import { noteContacts } from "./contacts.ts";
import { factsOf, MATERIALS, material, type DemoMaterial, type MaterialKey } from "./materials.ts";
import { PURCHASES } from "./purchases.ts";
import { harvestEvents, jarEvents } from "./steep.ts";
import { makeBatch, leaveOnBench } from "./making.ts";
import { giftOrder, goToMarket, linesFor, planNextMarket } from "./selling.ts";
import { addRecipes, rewrites } from "./written.ts";
import { euro, idIn, must, type DemoEvent, type World } from "./world.ts";
import { BATCHES, COUNTS, GIFTS, MARKETS, TAKEN_OUT } from "./year.ts";

/** "500 g" or "48 pcs" in the material's base unit. */
function packQty(key: MaterialKey, text: string): number {
  const m = material(key);
  const amount = must(parseAmount(text));
  return amount.unit === "pc" ? amount.n.valueOf() : must(massOf(amount, factsOf(m, KINDS[m.kind].forms[0]!)));
}

/** A demo material with what the starter library knows of it. */
function factsToKeep(m: DemoMaterial): MaterialIn {
  const from = libraryEntry(m.from ?? null);
  const byHand = m.reorderAt === undefined ? null : m.reorderAt * (KINDS[m.kind].measured === "weight" ? 1000 : 1);
  return {
    ...(from ? materialFromLibrary(from) : {}),
    name: m.name,
    kind: m.kind,
    inci: m.inci ?? from?.inci ?? "",
    densities: m.densities ?? from?.densities ?? {},
    dropsPerMl: m.dropsPerMl ?? from?.dropsPerMl ?? null,
    reorderBy: byHand === null ? "never" : m.learns ? "use" : "hand",
    reorderAt: byHand,
    allergen: m.allergen ?? from?.allergen ?? "",
    innerMm: m.innerMm,
    fillMm: m.fillMm,
    brimMl: m.brimMl,
    madeOf: m.madeOf ?? "",
  };
}

async function addMaterials(db: Db, day: Day): Promise<World["materials"]> {
  const ids: Partial<World["materials"]> = {};
  for (const [key, m] of Object.entries(MATERIALS) as [MaterialKey, DemoMaterial][]) {
    ids[key] = idIn(await saveMaterial(db, factsToKeep(m), { day }));
  }
  return ids as World["materials"];
}

/** Fills an empty, migrated database with the demo workshop. @param today the day everything is dated from */
export async function loadDemo(db: Db, today: Day): Promise<void> {
  await saveSettings(
    db,
    { ...STARTING_SETTINGS, workshop: "Aldermoss Workroom", reachUs: "The Workroom, Mill Steps, Aldermoss\nTelephone 0555 0147" },
    { day: addDays(today, -261) },
  );
  const materials = await addMaterials(db, addDays(today, -260));
  const w: World = { db, today, materials, recipes: await addRecipes(db, addDays(today, -185), materials) };

  const events: DemoEvent[] = [
    ...PURCHASES.map((p) => ({
      daysAgo: p.daysAgo,
      run: () => {
        const day = addDays(today, -p.daysAgo);
        return receive(
          db,
          {
            supplier: p.supplier,
            day,
            postage: euro(p.postage),
            lines: p.lines.map(([key, packs, packSize, price, months], i) => ({
              materialId: materials[key],
              supplierLot: `${p.supplier.slice(0, 2).toUpperCase()}${p.daysAgo}${String.fromCharCode(65 + i)}`,
              packs,
              packSize,
              qty: packs * packQty(key, packSize),
              price: euro(price),
              bestBefore: months ? addDays(addMonths(day, Math.floor(months)), Math.round((months % 1) * 30)) : null,
            })),
          },
          { day },
        );
      },
    })),
    ...harvestEvents(w),
    ...jarEvents(w),
    ...rewrites(w),
    ...BATCHES.map((b) => ({ daysAgo: b.daysAgo, run: () => makeBatch(w, b) })),
    ...MARKETS.map((m) => ({ daysAgo: m.daysAgo, run: () => goToMarket(w, m) })),
    ...GIFTS.map((g) => ({ daysAgo: Math.max(2 - g.due, 1), run: () => giftOrder(w, g) })),
    ...TAKEN_OUT.map((t) => ({
      daysAgo: t.daysAgo,
      run: async () => {
        const day = addDays(today, -t.daysAgo);
        const [takes] = await linesFor(w, day, [[t.recipe, t.units]]);
        await takeOut(db, { lotId: takes![0]!.lotId, units: t.units, reason: t.reason, note: t.note }, { day });
      },
    })),
    ...COUNTS.map((c) => ({
      daysAgo: c.daysAgo,
      run: async () => {
        const [oldest] = (await lotsOfMaterials(db, [materials[c.material]])).sort((a, b) => a.id - b.id);
        const step = KINDS[MATERIALS[c.material].kind].measured === "weight" ? 1000 : 1;
        await correctCount(
          db,
          { lotId: oldest!.id, counted: oldest!.onHand + c.change * step, expected: oldest!.onHand, reason: c.reason },
          { day: addDays(today, -c.daysAgo) },
        );
      },
    })),
  ];
  // A stable sort: on the same day things happen in the order they are listed.
  for (const e of events.sort((a, b) => b.daysAgo - a.daysAgo)) await e.run();
  await planNextMarket(w);
  await leaveOnBench(w);
  await noteContacts(w);
}
