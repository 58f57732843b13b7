/**
 * Loads the demo workshop by doing what a maker would have done, day by day, through the same commands the application uses.
 */
import { micros, mg, type Micros, type Mg } from "#core/measure/exact";
import { massOf, type MassFacts } from "#core/measure/mass";
import { parseAmount } from "#core/measure/parse";
import { KINDS } from "#core/material/kinds";
import { libraryEntry } from "#core/material/library";
import type { Outcome } from "#core/outcome";
import { weighRecipe } from "#core/recipe/lines";
import { batchFor, onScale } from "#core/recipe/scale";
import { STARTING_SETTINGS } from "#core/settings";
import { planTakes } from "#core/stock/lots";
import { batchDensity, densityInPot, readFill } from "#core/recipe/sizes";
import { addDays, addMonths, saturdayBefore, type Day } from "#core/when";
import { pour } from "#db/bench/pour";
import { readBatch } from "#db/bench/read";
import { saveWeighed, setOut } from "#db/bench/setOut";
import { takeOut } from "#db/cabinet/cabinet";
import { unitsStand } from "#db/cabinet/promised";
import type { Db } from "#db/client";
import { saveGiftOrder } from "#db/gifts/gifts";
import { packGiftOrder } from "#db/gifts/pack";
import { lotsOfMaterials } from "#db/ledger/lots";
import { closeMarketDay, saveMarketDay } from "#db/markets/markets";
import { choosePrices } from "#db/prices/prices";
import { readRecipes } from "#db/recipe/read";
import { saveRecipe } from "#db/recipe/save";
import { saveSettings } from "#db/settings";
import { correctCount } from "#db/shelf/count";
import { materialFromLibrary, saveMaterial, type MaterialIn } from "#db/shelf/keepMaterial";
import { receive } from "#db/shelf/receive";
import { MATERIALS, type DemoMaterial, type MaterialKey } from "./materials.ts";
import { RECIPES, type DemoRecipe, type RecipeKey } from "./recipes.ts";
import { PURCHASES } from "./purchases.ts";
import { harvestEvents, jarEvents } from "./steep.ts";
import { idIn, type DemoEvent, type World } from "./world.ts";
import { BATCHES, COUNTS, GIFTS, MARKETS, NEXT_MARKET, TAKEN_OUT } from "./year.ts";

const must = <T>(o: Outcome<T>): T => {
  if (!o.ok) throw new Error(`demo data: ${o.problem.say}`);
  return o.value;
};
const euro = (n: number): Micros => micros(Math.round(n * 100) * 10_000);
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

/** A hand never weighs quite what the sheet says: a small, repeatable wobble in whole scale steps. */
const wobble = (planned: Mg, i: number): Mg => {
  const near = onScale(planned, STARTING_SETTINGS.scale);
  return near.outOfReach ? planned : mg(near.weight + (planned > 40_000 ? [0, 100, 0, 200, -100][i % 5]! : 0));
};

async function makeBatch(w: World, b: (typeof BATCHES)[number]): Promise<void> {
  const day = addDays(w.today, -b.daysAgo);
  const { id, productId, smallId } = w.recipes[b.recipe];
  const [written] = await readRecipes(w.db, [id]);
  const fillOf = (product: number | null): Mg => written!.sizes.find((s) => s.id === product)?.fill ?? mg(0);
  const sizes = [{ productId, units: b.units }, ...(b.small && smallId ? [{ productId: smallId, units: b.small }] : [])];
  const batchMg = batchFor(
    sizes.map((s) => ({ units: s.units, fill: fillOf(s.productId) })),
    written!.recipe.lossBp,
  );
  const set = await setOut(w.db, { recipeId: id, batchMg, sizes }, { day });
  const batchId = idIn(set);
  const sheet = await readBatch(w.db, batchId);
  const takes = sheet!.takes.map((t, i) => {
    const onHand = sheet!.lots.find((l) => l.id === t.lotId)!.onHand;
    return {
      position: t.position,
      materialId: t.materialId,
      lotId: t.lotId,
      planned: t.planned,
      weighed: t.planned === onHand ? t.planned : mg(Math.min(wobble(t.planned, i), onHand)),
    };
  });
  await pour(
    w.db,
    {
      batchId,
      takes,
      sizes: sizes.map((s, i) => (i === 0 ? { ...s, units: b.filled ?? b.units } : s)),
      leftover: mg(b.leftover * 1000),
      minutes: b.minutes,
      note: b.note ?? "",
    },
    { day },
  );
}

/** Finished lots for so many units of products, use-first. */
async function linesFor(w: World, day: Day, wanted: readonly (readonly [RecipeKey, number])[]) {
  const stand = await unitsStand(w.db, day);
  // What is promised to orders stays here.
  const lots = [...stand.values()].flatMap((s) => {
    let free = s.free;
    return s.lots.map((l) => {
      const onHand = Math.min(l.open, free);
      free -= onHand;
      return { ...l.lot, onHand };
    });
  });
  return planTakes(
    wanted.map(([r, n]) => ({ of: w.recipes[r].productId, amount: n })),
    lots,
    day,
  ).map((p) => p.takes);
}

async function goToMarket(w: World, m: (typeof MARKETS)[number]): Promise<void> {
  const day = saturdayBefore(addDays(w.today, -m.daysAgo));
  const takes = await linesFor(
    w,
    day,
    m.lines.map(([r, taken]) => [r, taken] as const),
  );
  let takings = 0;
  const lines = m.lines.flatMap(([r, , sold, given, damaged], i) => {
    let left = [sold, given, damaged];
    const price = euro(RECIPES[r].prices[0]);
    takings += sold * price;
    return takes[i]!.map((t) => {
      let room = t.amount;
      const [s, g, d] = left.map((n) => {
        const now = Math.min(n, room);
        room -= now;
        return now;
      }) as [number, number, number];
      left = [left[0]! - s, left[1]! - g, left[2]! - d];
      return { lotId: t.lotId, taken: t.amount, sold: s, given: g, damaged: d, price };
    });
  });
  const byCard = euro(Math.round((takings * m.cardShare) / 500_000) / 2);
  await closeMarketDay(
    w.db,
    {
      name: m.name,
      day,
      stallFee: euro(m.stallFee),
      travel: euro(m.travel),
      byCard,
      cardFeeBp: STARTING_SETTINGS.cardFeeBp,
      minutes: m.hours * 60,
      note: m.note ?? "",
      lines,
    },
    { day },
  );
}

async function planNextMarket(w: World): Promise<void> {
  const takes = await linesFor(w, w.today, NEXT_MARKET.lines);
  const lines = NEXT_MARKET.lines.flatMap(([r], i) =>
    takes[i]!.map((t) => ({ lotId: t.lotId, taken: t.amount, sold: 0, given: 0, damaged: 0, price: euro(RECIPES[r].prices[0]) })),
  );
  const { name, stallFee, travel, inDays } = NEXT_MARKET;
  await saveMarketDay(
    w.db,
    {
      name,
      day: saturdayBefore(addDays(w.today, inDays)),
      stallFee: euro(stallFee),
      travel: euro(travel),
      byCard: micros(0),
      cardFeeBp: STARTING_SETTINGS.cardFeeBp,
      minutes: 0,
      note: "",
      lines,
    },
    { day: w.today },
  );
}

async function giftOrder(w: World, g: (typeof GIFTS)[number]): Promise<void> {
  const day = addDays(w.today, Math.min(g.due - 2, -1));
  const { customer, wrapMinutes } = g;
  const saved = await saveGiftOrder(
    w.db,
    {
      customer,
      wrapMinutes,
      due: addDays(w.today, g.due),
      extra: euro(g.extra),
      discountBp: g.discountPercent * 100,
      note: g.note ?? "",
      items: g.items.map(([r, units]) => ({ productId: w.recipes[r].productId, units, price: euro(RECIPES[r].prices[3]) })),
      wrapping: g.wrapping.map(([m, pieces]) => ({ materialId: w.materials[m], pieces })),
    },
    { day },
  );
  if (g.packed) await packGiftOrder(w.db, { id: idIn(saved), only: [] }, { day });
}

/** A batch standing half weighed on the bench. */
async function leaveOnBench(w: World): Promise<void> {
  const { id, productId } = w.recipes.lipPot;
  const set = await setOut(
    w.db,
    { recipeId: id, batchMg: batchFor([{ units: 20, fill: mg(10_000) }], 400), sizes: [{ productId, units: 20 }] },
    { day: w.today },
  );
  const batchId = idIn(set);
  const sheet = await readBatch(w.db, batchId);
  await saveWeighed(
    w.db,
    batchId,
    sheet!.takes.map(({ position, materialId, lotId, planned }, i) => ({
      position,
      materialId,
      lotId,
      planned,
      weighed: i < 2 ? wobble(planned, i) : null,
    })),
  );
}

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
}
