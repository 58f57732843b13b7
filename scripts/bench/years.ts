/**
 * A workshop of five years: the demo, and beside it what 400 materials, 40 recipes of twelve lines, 4,000 finished lots, 250 market days, 500
 * orders and 300 jars come to, all of it done through the application's own acts, day by day. Only the last of the 250,000 movements are written
 * at once: corrections that come to nothing, as counting leaves them, through the ledger's own triggers.
 */
import type { Form } from "#core/measure/mass";
import { UNASKED } from "#core/recipe/judge/judge";
import { mg, micros } from "#core/measure/exact";
import { METHODS, readyDays } from "#core/infusion/methods";
import { addDays, type Day } from "#core/when";
import { pour } from "#db/bench/finishing/pour";
import { readBatch } from "#db/bench/read";
import { setOut } from "#db/bench/planning/setOut";
import type { Db } from "#db/client";
import { saveGiftOrder } from "#db/gifts/gifts";
import { packGiftOrder } from "#db/gifts/pack";
import { fillJar } from "#db/jars/fill";
import { strainJar } from "#db/jars/strain";
import { ledgerFaults } from "#db/ledger/faults";
import { lotsOfMaterials, lotsOfProducts } from "#db/ledger/lots";
import { closeMarketDay } from "#db/markets/markets";
import { choosePrices } from "#db/prices/prices";
import { readRecipes } from "#db/recipe/read";
import { saveRecipe } from "#db/recipe/save";
import { saveMaterial } from "#db/shelf/keepMaterial";
import { receive } from "#db/shelf/receipts/receive";
import { sql } from "drizzle-orm";
import { euro, idIn } from "../../demo/world.ts";

const DAYS = 1800;
const INGREDIENTS = 200;
const CONTAINERS = 70;
const LABELS = 70;
const LOTS_EACH = 17;
const RECIPES = 40;
const LINES = 12;
const BATCHES = 4000;
const UNITS = 20;
/** A unit of 30 g with what stays in the pot. */
const BATCH_EACH = 31_000;
/** What is bought over what is needed. */
const SPARE = 1.15;
const JARS = 300;
/** Oils that are steeped again and again. */
const OILS = 20;
const MARKETS = 250;
const ORDERS = 500;
const MOVEMENTS = 250_000;

const KINDS = ["oil", "wax", "hardButter", "softButter", "essentialOil", "powder", "herb"] as const;
const FORMS: Record<(typeof KINDS)[number], Form> = {
  oil: "liquid",
  wax: "pellets",
  hardButter: "block",
  softButter: "block",
  essentialOil: "liquid",
  powder: "powder",
  herb: "dried",
};
const numbered = (what: string, i: number): string => `${what} ${String(i + 1).padStart(3, "0")}`;

interface Made {
  /** How much of each material is bought at a time, so that little is left when the next comes. */
  each: Map<number, number>;
  ingredients: number[];
  containers: number[];
  labels: number[];
  /** Recipes and the size each is made in. */
  recipes: { id: number; product: number }[];
}

async function begin(db: Db, day: Day): Promise<Made> {
  const add = async (name: string, kind: (typeof KINDS)[number] | "container" | "label") =>
    idIn(
      await saveMaterial(db, { name, kind, densities: kind === "oil" ? { liquid: 920 } : {}, reorderBy: "use", reorderAt: null }, { day }),
    );
  const made: Made = { each: new Map(), ingredients: [], containers: [], labels: [], recipes: [] };
  for (let i = 0; i < INGREDIENTS; i++) made.ingredients.push(await add(numbered("Stuff", i), KINDS[i % KINDS.length]!));
  for (let i = 0; i < CONTAINERS; i++) made.containers.push(await add(numbered("Tin", i), "container"));
  for (let i = 0; i < LABELS; i++) made.labels.push(await add(numbered("Label", i), "label"));
  for (let r = 0; r < RECIPES; r++) {
    const lines = Array.from({ length: LINES }, (_, i) => {
      const n = (r * 5 + i * 17) % INGREDIENTS;
      return {
        materialId: made.ingredients[n]!,
        entered: `${50 + i} g`,
        form: FORMS[KINDS[n % KINDS.length]!],
        weight: mg((50 + i) * 1000),
      };
    });
    const container = made.containers[r % CONTAINERS]!;
    const label = made.labels[r % LABELS]!;
    const total = lines.reduce((a, l) => a + l.weight, 0);
    const need = (of: number, amount: number): void => {
      made.each.set(of, (made.each.get(of) ?? 0) + Math.ceil((amount * BATCHES * SPARE) / RECIPES / (LOTS_EACH - 1)));
    };
    for (const l of lines) need(l.materialId, (UNITS * BATCH_EACH * l.weight) / total);
    for (const of of [container, label]) need(of, UNITS);
    const id = idIn(
      await saveRecipe(
        db,
        {
          ...UNASKED,
          name: numbered("Balm", r),
          code: `Y${String.fromCharCode(65 + (r % 26))}${String.fromCharCode(65 + Math.floor(r / 26))}`,
          type: "balm",
          makes: null,
          total: mg(total),
          lossBp: 200,
          overrunBp: 0,
          keepsMonths: 12,
          batchMinutes: 45,
          method: "",
          note: "",
          lines,
          sizes: [
            {
              id: null,
              label: "30 g",
              fillBy: "weight",
              fillText: "30 g",
              fill: mg(30_000),
              fillMl: null,
              containerId: container,
              unitMinutesHundredths: 200,
              retired: false,
              packaging: [
                { materialId: container, pieces: 1 },
                { materialId: label, pieces: 1 },
              ],
            },
          ],
        },
        { day },
      ),
    );
    const [written] = await readRecipes(db, [id]);
    const product = written!.sizes[0]!.id;
    await choosePrices(db, { productId: product, own: null, prices: { market: euro(9), gift: euro(10) } }, { day });
    made.recipes.push({ id, product });
  }
  return made;
}

/** Five materials on one receipt, so much of each that it lasts until the next. */
async function buy(db: Db, all: readonly number[], each: Made["each"], n: number, day: Day): Promise<void> {
  const group = n % Math.ceil(all.length / 5);
  await receive(
    db,
    {
      supplier: numbered("Mill", group % 12),
      day,
      postage: euro(6),
      lines: all.slice(group * 5, group * 5 + 5).map((materialId, i) => {
        const weighed = group * 5 + i < INGREDIENTS;
        const qty = weighed ? Math.ceil((each.get(materialId) ?? 0) / 1000 + 150) * 1000 : (each.get(materialId) ?? 10);
        return {
          materialId,
          supplierLot: `M${n}${i}`,
          packs: 1,
          packSize: weighed ? `${qty / 1000} g` : `${qty} pcs`,
          qty,
          price: euro(12 + ((n * 7 + i * 3) % 20)),
          bestBefore: weighed ? addDays(day, 540) : null,
        };
      }),
    },
    { day },
  );
}

async function make(db: Db, { recipes }: Made, n: number, day: Day): Promise<void> {
  const { id, product } = recipes[n % RECIPES]!;
  const sizes = [{ productId: product, units: UNITS }];
  const batchId = idIn(await setOut(db, { recipeId: id, batchMg: mg(UNITS * BATCH_EACH), sizes }, { day }));
  const sheet = await readBatch(db, batchId);
  const takes = sheet!.takes.map(({ position, materialId, lotId, planned }) => ({
    position,
    materialId,
    lotId,
    planned,
    weighed: planned,
  }));
  await pour(db, { batchId, takes, sizes, leftover: mg(0), minutes: 70, note: "" }, { day });
}

/** Orders for what was made last, packed at once. */
async function order(db: Db, { recipes }: Made, n: number, made: number, day: Day): Promise<void> {
  const items = [1, 2].map((back) => ({ productId: recipes[(made - back + RECIPES) % RECIPES]!.product, units: 2, price: euro(10) }));
  const saved = await saveGiftOrder(
    db,
    { customer: numbered("Guest", n % 90), due: day, extra: euro(2), discountBp: 0, wrapMinutes: 5, note: "", items, wrapping: [] },
    { day },
  );
  await packGiftOrder(db, { id: idIn(saved), only: [] }, { day });
}

/** Everything that is in the cabinet of these goes to a market, and most of it is sold. */
async function sell(db: Db, { recipes }: Made, n: number, day: Day): Promise<void> {
  const lots = await lotsOfProducts(
    db,
    recipes.map((r) => r.product),
  );
  await closeMarketDay(
    db,
    {
      name: numbered("Fair", n % 8),
      day,
      stallFee: euro(25),
      travel: euro(10),
      byCard: micros(0),
      cardFeeBp: 120,
      minutes: 360,
      note: "",
      // Of the newest ones some come home again.
      lines: lots.map((l, i) => ({
        lotId: l.id,
        taken: l.onHand,
        sold: l.onHand - (n % 20 === 19 && i < 6 ? 2 : 0),
        given: 0,
        damaged: 0,
        price: euro(9),
      })),
    },
    { day },
  );
}

async function steep(db: Db, { ingredients }: Made, n: number, day: Day): Promise<void> {
  const oil = ingredients[((n * 7) % INGREDIENTS) - (((n * 7) % INGREDIENTS) % KINDS.length)]!;
  const herb = ingredients[6 + 7 * (n % 28)]!;
  const fullest = async (material: number) => (await lotsOfMaterials(db, [material])).reduce((a, l) => (l.onHand > a.onHand ? l : a)).id;
  const day2 = addDays(day, 42);
  const jarId = idIn(
    await fillJar(
      db,
      {
        name: numbered("Steeped oil", n % OILS),
        method: "shelf",
        methodName: "",
        vessel: "",
        vesselMl: null,
        fillMl: null,
        looseMl: null,
        day,
        ready: readyDays(day, METHODS.shelf.times),
        wished: null,
        heatMinutes: null,
        why: "",
        note: "",
        expected: mg(80_000),
        parts: [
          { role: "carrier", materialId: oil, lotId: await fullest(oil), qty: mg(100_000), cut: null },
          { role: "herb", materialId: herb, lotId: await fullest(herb), qty: mg(10_000), cut: "whole" },
        ],
      },
      { day },
    ),
  );
  if (n < JARS - 10)
    await strainJar(
      db,
      { jarId, back: mg(80_000), secondBack: null, sediment: mg(0), herbOut: null, pressed: false, bottles: [mg(80_000)] },
      { day: day2 },
    );
}

/** Corrections of a gram that are taken back by the next: what the ledger of five years has beside them. */
async function countAll(db: Db): Promise<void> {
  await db.execute(sql`
    with missing as (select (${sql.raw(String(MOVEMENTS))} - (select count(*) from movement)) / 2 as n),
      counted as (insert into act (kind, day, summary, path) values ('count', current_date - 900, 'Counted', '/shelf') returning id),
      lots as (select id, row_number() over (order by id) - 1 as at, count(*) over () as of from lot where material_id is not null and on_hand > 2)
    insert into movement (act_id, lot_id, qty, value, reason)
    select counted.id, lots.id, side, 0, 'counted'
    from missing, counted, generate_series(1, (select n from missing)) i join lots on lots.at = i % lots.of, unnest(array[1, -1]) side
    order by i, side desc`);
}

/** @param today the day all of it leads up to @throws Error where the ledger doesn't hold */
export async function liveFiveYears(db: Db, today: Day): Promise<void> {
  const first = addDays(today, -DAYS - 20);
  const made = await begin(db, first);
  const all = [...made.ingredients, ...made.containers, ...made.labels];
  const groups = Math.ceil(all.length / 5);
  const events: { at: number; run: (day: Day) => Promise<void> }[] = [];
  const spread = (n: number, over: number, run: (i: number, day: Day) => Promise<void>): void => {
    for (let i = 0; i < n; i++) events.push({ at: Math.floor((i * over) / n), run: (day) => run(i, day) });
  };
  for (let g = 0; g < groups; g++) events.push({ at: -1, run: (day) => buy(db, all, made.each, g, day) });
  spread(groups * (LOTS_EACH - 1), DAYS, (i, day) => buy(db, all, made.each, i, day));
  let batches = 0;
  spread(BATCHES, DAYS, async (i, day) => {
    await make(db, made, i, day);
    batches = i + 1;
  });
  spread(JARS, DAYS - 60, (i, day) => steep(db, made, i, day));
  spread(ORDERS, DAYS, (i, day) => order(db, made, i, batches, day));
  spread(MARKETS, DAYS, (i, day) => sell(db, made, i, day));
  // A stable sort: on one day things are bought, made, steeped, packed and sold, in this order.
  for (const e of events.sort((a, b) => a.at - b.at)) await e.run(addDays(today, e.at - DAYS));
  await countAll(db);
  const faults = await ledgerFaults(db);
  if (faults.length > 0) throw new Error(`The large workshop's books don't hold: ${faults.slice(0, 3).join("; ")}`);
}
