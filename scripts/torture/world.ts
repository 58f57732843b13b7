/** A workshop with more than enough of everything, and what its contests have in common. */
import { mg, micros } from "#core/measure/exact";
import type { Done } from "#db/act/define";
import { saveContact } from "#db/contacts/contacts";
import { pour } from "#db/bench/finishing/pour";
import { readBatch } from "#db/bench/read";
import { setOut } from "#db/bench/planning/setOut";
import type { Db } from "#db/client";
import { fillJar } from "#db/jars/fill";
import { readRecipes } from "#db/recipe/read";
import { saveRecipe, type RecipeIn } from "#db/recipe/save";
import { pick } from "#db/shelf/harvests";
import { saveMaterial } from "#db/shelf/keepMaterial";
import { receive } from "#db/shelf/receipts/receive";
import type { ReceiveIn } from "#db/shelf/receipts/writeReceipts";
import { lot } from "#db/schema";
import { balmOf, sizeOf, type BalmOf } from "#test/db/balm";
import { DAY, jarOf } from "#test/db/jar";
import { eq } from "drizzle-orm";

export const euro = (n: number) => micros(n * 1_000_000);
export const idIn = (d: Done): number => Number(d.path.split("/").at(-1));
export const now = () => ({ day: DAY, token: crypto.randomUUID() });

/** What windows have in common is what they get in each other's way about. `spare` is what nothing else is made of. */
export interface World {
  ids: Record<
    | ("oil" | "wax" | "tin" | "box" | "herb" | "spare")
    | ("recipe" | "product" | "spareRecipe" | "spareProduct")
    | ("receipt" | "harvest" | "jar" | "otherJar" | "guest"),
    number
  >;
  /** Lots of oil, of herb and of finished units, two of each. */
  lots: Record<"oil" | "herb" | "made", [number, number]>;
}

export const buying = (materialId: number, qty: number, price: number): ReceiveIn => ({
  supplier: "Mill",
  day: DAY,
  postage: micros(0),
  lines: [{ materialId, supplierLot: "", packs: 1, packSize: "1 pc", qty, price: euro(price), bestBefore: null }],
});

/** The balm windows have in common, in two sizes. */
export const balm = (ids: BalmOf, over: Partial<RecipeIn> = {}): RecipeIn =>
  balmOf(ids, { sizes: [sizeOf(ids, 50), sizeOf(ids, 25)], ...over });

export async function make(db: Db, w: Pick<World, "ids">, units: number): Promise<void> {
  const { recipe, product } = w.ids;
  const batchId = idIn(await setOut(db, { recipeId: recipe, batchMg: mg(units * 50_000), sizes: [{ productId: product, units }] }, now()));
  await pourOf(db, w, batchId, units);
}

export async function pourOf(db: Db, w: Pick<World, "ids">, batchId: number, units: number): Promise<Done> {
  const sheet = await readBatch(db, batchId);
  const takes = sheet!.takes.map(({ position, materialId, lotId, planned }) => ({
    position,
    materialId,
    lotId,
    planned,
    weighed: planned,
  }));
  return pour(db, { batchId, takes, sizes: [{ productId: w.ids.product, units }], leftover: mg(0), minutes: 10, note: "" }, now());
}

export async function aWorld(db: Db): Promise<World> {
  const add = async (name: string, kind: "oil" | "wax" | "container" | "box" | "herb") =>
    idIn(await saveMaterial(db, { name, kind, densities: { liquid: 920 } }, now()));
  const ids = {
    oil: await add("Oil", "oil"),
    wax: await add("Wax", "wax"),
    tin: await add("Tin", "container"),
    box: await add("Box", "box"),
    herb: await add("Herb", "herb"),
    spare: await add("Spare oil", "oil"),
    recipe: 0,
    product: 0,
    spareRecipe: 0,
    spareProduct: 0,
    receipt: 0,
    harvest: 0,
    jar: 0,
    otherJar: 0,
    guest: 0,
  };
  for (const [id, qty] of [
    [ids.tin, 20_000],
    [ids.box, 20_000],
    [ids.oil, 400_000_000],
    [ids.wax, 400_000_000],
    [ids.herb, 40_000_000],
    [ids.spare, 40_000_000],
  ] as const)
    for (let i = 0; i < 2; i++) ids.receipt = idIn(await receive(db, buying(id, qty, 4000), now()));
  ids.recipe = idIn(await saveRecipe(db, balm(ids), now()));
  ids.spareRecipe = idIn(await saveRecipe(db, balm(ids, { name: "Spare balm", code: "SP" }), now()));
  const sizesOf = async (id: number) => (await readRecipes(db, [id]))[0]!.sizes;
  ids.product = (await sizesOf(ids.recipe))[0]!.id;
  ids.spareProduct = (await sizesOf(ids.spareRecipe))[1]!.id;
  for (let i = 0; i < 2; i++) await make(db, { ids }, 3000);
  const two = async (of: "materialId" | "productId", id: number): Promise<[number, number]> => {
    const rows = await db.select({ id: lot.id }).from(lot).where(eq(lot[of], id)).orderBy(lot.id);
    return [rows[0]!.id, rows[1]!.id];
  };
  const w: World = {
    ids,
    lots: { oil: await two("materialId", ids.oil), herb: await two("materialId", ids.herb), made: await two("productId", ids.product) },
  };
  ids.jar = idIn(await jarIn(db, w));
  ids.otherJar = idIn(await jarIn(db, w));
  ids.harvest = idIn(await picking(db, w));
  ids.guest = idIn(await aGuest(db));
  return w;
}

/** One that takes part in a contest: what it needs beforehand, and its act. */
export interface Contestant {
  /** Whether it may be refused by right, because another's act came first. */
  maybe?: true;
  ready: (db: Db, w: World) => Promise<(db: Db) => Promise<Done>>;
}

/** One that needs nothing beforehand. */
export const atOnce = (act: (db: Db, w: World) => Promise<Done>): Contestant => ({
  ready: (_db, w) => Promise.resolve((db) => act(db, w)),
});

let turn = 0;
/** One after the other of these, so that windows differ and a seed does the same again. */
export const inTurn = <T>(...of: readonly T[]): T => of[turn++ % of.length]!;

/** A name no other has. */
export const fresh = (what: string): string => `${what} ${crypto.randomUUID()}`;

export const jarIn = (db: Db, w: World): Promise<Done> =>
  fillJar(
    db,
    jarOf(
      [
        { role: "carrier", materialId: w.ids.oil, lotId: w.lots.oil[1], qty: mg(100_000), cut: null },
        { role: "herb", materialId: w.ids.herb, lotId: w.lots.herb[0], qty: mg(10_000), cut: "whole" },
      ],
      { expected: mg(80_000) },
    ),
    now(),
  );

export const picking = (db: Db, w: World): Promise<Done> =>
  pick(
    db,
    { materialId: w.ids.herb, picked: DAY, place: "", fresh: mg(500_000), method: "air", celsius: null, minutes: 10, note: "" },
    now(),
  );

export const aGuest = (db: Db): Promise<Done> => saveContact(db, { kind: "customer", name: fresh("Guest"), reach: "", note: "" }, now());
