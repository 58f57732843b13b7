/**
 * A small workshop for database tests: two ingredients, a tin and a box, one recipe, and the acts a maker does with them.
 * Every test gets its own, so that none depends on what another left behind.
 */
import { mg } from "#core/measure/exact";
import { Refused, type FieldProblem } from "#core/refused";
import { eq } from "drizzle-orm";
import { afterEach, beforeEach } from "vitest";
import type { Done } from "#db/act/define";
import { pour } from "#db/bench/finishing/pour";
import { readBatch } from "#db/bench/read";
import { setOut } from "#db/bench/planning/setOut";
import type { OpenDb } from "#db/client";
import { readRecipes } from "#db/recipe/read";
import { saveRecipe, type RecipeIn, type SizeIn } from "#db/recipe/save";
import { lot } from "#db/schema";
import { saveMaterial } from "#db/shelf/keepMaterial";
import { readMaterial } from "#db/shelf/materials";
import { readReceipt } from "#db/shelf/receipts/receipts";
import type { CorrectIn } from "#db/shelf/receipts/correct";
import { receive } from "#db/shelf/receipts/receive";
import type { ReceiptLineIn } from "#db/shelf/receipts/writeReceipts";
import { balmOf, sizeOf } from "./balm.ts";
import { euro, freshDb } from "./fresh.ts";
import { DAY, jarOf } from "./jar.ts";

export { DAY, jarOf };
export let db: OpenDb;
let drop: () => Promise<void>;
/** Material, recipe and product ids of the workshop. */
export let ids: { oil: number; wax: number; tin: number; box: number; recipe: number; product: number };

export const idIn = (d: Done): number => Number(d.path.split("/").at(-1));
export const token = () => crypto.randomUUID();
export const balm = (over: Partial<RecipeIn> = {}): RecipeIn => balmOf(ids, over);
/** A size filled with so many grams into a tin. */
export const size = (grams: number, over: Partial<SizeIn> = {}): SizeIn => sizeOf(ids, grams, over);

/** Sets out so many units of the first size. */
export const put = (units: number, doing: { token?: string } = {}) =>
  setOut(db, { recipeId: ids.recipe, batchMg: mg(units * 50_000), sizes: [{ productId: ids.product, units }] }, { day: DAY, ...doing });
/** Units of the first size, as pouring counts them. */
export const filled = (units: number) => [{ productId: ids.product, units }];
export const buy = (materialId: number, qty: number, price: number, bestBefore: string | null = null) =>
  receive(
    db,
    {
      supplier: "Mill",
      day: DAY,
      postage: euro(1.01),
      lines: [{ materialId, supplierLot: "S1", packs: 1, packSize: "1 kg", qty, price: euro(price), bestBefore }],
    },
    { day: DAY, token: token() },
  );
/** A line of a receipt: three packs of oil unless said otherwise. */
export const threePacks = (over: Partial<ReceiptLineIn> = {}): ReceiptLineIn => ({
  materialId: ids.oil,
  supplierLot: "",
  packs: 3,
  packSize: "1 kg",
  qty: 3_000_000,
  price: euro(30),
  bestBefore: null,
  ...over,
});
/** A receipt as it is, to be corrected. */
export const asCorrection = async (id: number): Promise<CorrectIn & { lines: (CorrectIn["lines"][number] & { price: number })[] }> => {
  const found = (await readReceipt(db, id))!;
  return {
    ...found.receipt,
    lines: found.lines.map(({ line: l, lot: of }) => ({ ...l, supplierLot: of?.supplierLot ?? "", bestBefore: of?.bestBefore ?? null })),
  };
};
export const lotsOf = async (materialId: number) => (await readMaterial(db, materialId))!.lots;
export const onHand = async (materialId: number) => (await lotsOf(materialId)).reduce((a, l) => a + l.onHand, 0);
export const finished = () => db.select().from(lot).where(eq(lot.productId, ids.product)).orderBy(lot.id);

/** Sets out and pours so many units, weighing just what is planned. */
export async function make(units: number): Promise<Done> {
  const batchId = idIn(await put(units, { token: token() }));
  const sheet = await readBatch(db, batchId);
  const takes = sheet!.takes.map(({ position, materialId, lotId, planned }) => ({
    position,
    materialId,
    lotId,
    planned,
    weighed: planned,
  }));
  return pour(db, { batchId, takes, sizes: filled(units), leftover: mg(0), minutes: 60, note: "" }, { day: DAY, token: token() });
}
export const refused = async (work: Promise<unknown>): Promise<FieldProblem[]> => {
  try {
    await work;
  } catch (e) {
    if (e instanceof Refused) return [...e.problems];
    throw e;
  }
  throw new Error("It was not refused.");
};

export interface Workshop {
  db: OpenDb;
  ids: typeof ids;
}

/** A workshop of 2 kg of oil, 500 g of wax, 40 tins and 10 boxes, with one recipe; nothing made yet. */
export async function aWorkshop(): Promise<Workshop & { drop: () => Promise<void> }> {
  const fresh = await freshDb();
  const outer = { db, ids };
  db = fresh.db;
  const add = async (name: string, kind: "oil" | "wax" | "container" | "box") =>
    idIn(await saveMaterial(db, { name, kind, densities: {} }, { day: DAY }));
  ids = {
    oil: await add("Oil", "oil"),
    wax: await add("Wax", "wax"),
    tin: await add("Tin", "container"),
    box: await add("Box", "box"),
    recipe: 0,
    product: 0,
  };
  ids.recipe = idIn(await saveRecipe(db, balm(), { day: DAY }));
  ids.product = (await readRecipes(db, [ids.recipe]))[0]!.sizes[0]!.id;
  await buy(ids.oil, 2_000_000, 20);
  await buy(ids.wax, 500_000, 9);
  await buy(ids.tin, 40, 20);
  await buy(ids.box, 10, 5);
  const made = { db, ids, drop: fresh.drop };
  ({ db, ids } = outer);
  return made;
}

/** Every test has a workshop of its own, with five finished balms. */
export function eachTestHasAWorkshop(): void {
  beforeEach(async () => {
    ({ db, ids, drop } = await aWorkshop());
    await make(5);
  });
  afterEach(() => drop());
}
