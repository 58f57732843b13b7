/**
 * Loads the demo workshop by doing what a maker would have done, day by day, through the same commands the application uses.
 */
import { type Micros } from "#core/measure/exact";
import { massOf, type MassFacts } from "#core/measure/mass";
import { parseAmount } from "#core/measure/parse";
import { KINDS } from "#core/material/kinds";
import { libraryEntry } from "#core/material/library";
import { UNASKED } from "#core/recipe/judge/judge";
import { weighRecipe } from "#core/recipe/lines";
import { STARTING_SETTINGS } from "#core/settings";
import { batchDensity, densityInPot, readFill } from "#core/recipe/sizes";
import { addDays, addMonths, type Day } from "#core/when";
import { takeOut } from "#db/cabinet/cabinet";
import type { Db } from "#db/client";
import { lotsOfMaterials } from "#db/ledger/lots";
import { choosePrices } from "#db/prices/prices";
import { readRecipes } from "#db/recipe/read";
import { saveRecipe } from "#db/recipe/save";
import { saveSettings } from "#db/settings";
import { correctCount } from "#db/shelf/count";
import { materialFromLibrary, saveMaterial, type MaterialIn } from "#db/shelf/keepMaterial";
import { receive } from "#db/shelf/receive";
import { noteContacts } from "./contacts.ts";
import { MATERIALS, type DemoMaterial, type MaterialKey } from "./materials.ts";
import { RECIPES, type DemoRecipe, type RecipeKey } from "./recipes.ts";
import { PURCHASES } from "./purchases.ts";
import { harvestEvents, jarEvents } from "./steep.ts";
import { makeBatch, leaveOnBench } from "./making.ts";
import { giftOrder, goToMarket, linesFor, planNextMarket } from "./selling.ts";
import { euro, idIn, must, type DemoEvent, type World } from "./world.ts";
import { BATCHES, COUNTS, GIFTS, MARKETS, TAKEN_OUT } from "./year.ts";

const factsOf = (m: DemoMaterial, form: MassFacts["form"]): MassFacts => ({
  name: m.name,
  form,
  densities: m.densities ?? {},
  dropsPerMl: m.dropsPerMl,
});
const material = (key: MaterialKey): DemoMaterial => MATERIALS[key];

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

async function addRecipes(db: Db, today: Day, materials: World["materials"]): Promise<World["recipes"]> {
  const out: Partial<World["recipes"]> = {};
  const day = addDays(today, -185);
  for (const [key, r] of Object.entries(RECIPES) as [RecipeKey, DemoRecipe][]) {
    const { lines, packaging, fill, makes, lossPercent, unitMinutes, prices, small, ...head } = r;
    const weigh = weighRecipe(
      lines.map(([m, entered, form]) => ({ amount: must(parseAmount(entered)), facts: factsOf(material(m), form) })),
      makes ? must(massOf(must(parseAmount(makes)), factsOf(material("beeswax"), "block"))) : null,
    );
    if (weigh.problem) throw new Error(`${r.name}: ${weigh.problem.say}`);
    const weights = weigh.lines.map((line) => {
      if (!line.ok) throw new Error(`${r.name}: ${line.problem.say}`);
      return line.weight;
    });
    const density = batchDensity(
      lines.map(([m], i) => {
        const { name, kind, densities = {} } = material(m);
        return { name, weight: weights[i]!, density: densityInPot({ kind, densities }) };
      }),
    );
    const size = (text: string, minutes: number, parts: DemoRecipe["packaging"]) => {
      const [container] = parts.map(([m]) => m).filter((m) => material(m).kind === "container");
      const made = must(readFill(text, { density, overrunBp: 0 }, container ? containerOf(container) : null));
      return {
        id: null,
        label: made.label,
        fillBy: made.by,
        fillText: text,
        fill: made.weight,
        fillMl: made.ml,
        containerId: container ? materials[container] : null,
        unitMinutesHundredths: Math.round(minutes * 100),
        retired: false,
        packaging: parts.map(([m, pieces]) => ({ materialId: materials[m], pieces })),
      };
    };
    const done = await saveRecipe(
      db,
      {
        ...head,
        ...UNASKED,
        makes: makes ? weigh.total : null,
        total: weigh.total,
        lossBp: Math.round(lossPercent * 100),
        overrunBp: 0,
        note: "",
        lines: lines.map(([m, entered, form], i) => ({ materialId: materials[m], entered, form, weight: weights[i]! })),
        sizes: [size(fill, unitMinutes, packaging), ...(small ? [size(small.fill ?? "", small.unitMinutes, small.packaging)] : [])],
      },
      { day },
    );
    const id = idIn(done);
    const [written] = await readRecipes(db, [id]);
    const [main, second] = written!.sizes;
    out[key] = { id, productId: main!.id, smallId: second?.id ?? null };
    const choose = async (productId: number, figures: DemoRecipe["prices"]): Promise<void> => {
      const [market, online, wholesale, gift] = figures.map(euro) as [Micros, Micros, Micros, Micros];
      await choosePrices(db, { productId, own: null, prices: { market, online, wholesale, gift } }, { day });
    };
    await choose(main!.id, prices);
    if (small && second) await choose(second.id, small.prices);
  }
  return out as World["recipes"];
}

const containerOf = (key: MaterialKey) => {
  const { name, brimMl = null, innerMm = null, fillMm = null } = material(key);
  return { name, brimMl, innerMm, fillMm, usableMl: null };
};

/** Fills an empty, migrated database with the demo workshop. @param today the day everything is dated from */
export async function loadDemo(db: Db, today: Day): Promise<void> {
  await saveSettings(db, { ...STARTING_SETTINGS, workshop: "Aldermoss Workroom" }, { day: addDays(today, -261) });
  const materials = await addMaterials(db, addDays(today, -260));
  const w: World = { db, today, materials, recipes: await addRecipes(db, today, materials) };

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
