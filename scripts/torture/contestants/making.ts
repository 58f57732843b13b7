/** Recipes and the bench, in contests. */
import { mg } from "#core/measure/exact";
import { keepBatchPhoto } from "#db/attachments/attachments";
import { PICTURE } from "#test/db/picture";
import { checkBatch } from "#db/bench/finishing/check";
import { learnBatch, lessonsOf } from "#db/bench/finishing/nextTime";
import { readBatch } from "#db/bench/read";
import { clearBatch } from "#db/bench/planning/clear";
import { setOut } from "#db/bench/planning/setOut";
import { spoilBatch } from "#db/bench/finishing/spoil";
import { weighOne } from "#db/bench/weighing/weigh";
import type { Db } from "#db/client";
import { noteFirmness } from "#db/recipe/firmness";
import { deleteProduct, deleteRecipe, retireProduct, retireRecipe } from "#db/recipe/keep";
import { readRecipes } from "#db/recipe/read";
import { addRecipes } from "#db/listsIn/recipes";
import { saveRecipe } from "#db/recipe/save";
import { atOnce, balm, fresh, idIn, inTurn, now, pourOf, type Contestant, type World } from "../world.ts";

const out = (db: Db, { ids: { recipe, product } }: World) =>
  setOut(db, { recipeId: recipe, batchMg: mg(50_000), sizes: [{ productId: product, units: 1 }] }, now());
const aRecipe = async (db: Db, w: World): Promise<number> =>
  idIn(await saveRecipe(db, balm(w.ids, { name: fresh("Balm"), code: crypto.randomUUID() }), now()));

export const MAKING = {
  // A version more of what others set out at the same time, in the sizes it has.
  saveRecipe: {
    ready: async (db, w) => {
      const [was] = await readRecipes(db, [w.ids.recipe]);
      const next = balm(w.ids, { lossBp: inTurn(0, 100, 200) });
      const sizes = next.sizes.map((s, i) => ({ ...s, id: was!.sizes[i]!.id }));
      return (at) => saveRecipe(at, { ...next, id: w.ids.recipe, sizes }, now());
    },
  },
  addRecipes: atOnce((db, w) =>
    addRecipes(db, { add: [], recipes: [balm(w.ids, { name: fresh("Balm"), code: crypto.randomUUID() })] }, now()),
  ),
  noteFirmness: atOnce((db, w) =>
    noteFirmness(db, { recipeId: w.ids.recipe, n: 1, day: now().day, celsius: 20, feel: inTurn("scoops", "firm"), note: "" }, now()),
  ),
  retireRecipe: atOnce((db, w) => retireRecipe(db, { id: w.ids.spareRecipe, retired: inTurn(true, false) }, now())),
  deleteRecipe: {
    ready: async (db, w) => {
      const id = await aRecipe(db, w);
      return (at) => deleteRecipe(at, { id }, now());
    },
  },
  retireProduct: atOnce((db, w) => retireProduct(db, { id: w.ids.spareProduct, retired: inTurn(true, false) }, now())),
  deleteProduct: {
    ready: async (db, w) => {
      const [made] = await readRecipes(db, [await aRecipe(db, w)]);
      const id = made!.sizes[1]!.id;
      return (at) => deleteProduct(at, { id }, now());
    },
  },
  setOut: atOnce(out),
  pour: {
    ready: async (db, w) => {
      const id = idIn(await out(db, w));
      return (at) => pourOf(at, w, id, 1);
    },
  },
  // As a batch before its recipe was changed by others, or just after: of several that write its next version one does.
  learnBatch: {
    maybe: true,
    ready: async (db, w) => {
      const batchId = idIn(await out(db, w));
      await pourOf(db, w, batchId, 1);
      const taught = await lessonsOf(db, (await readBatch(db, batchId))!);
      return (at) => learnBatch(at, { batchId, keys: taught?.changes.map((c) => c.key) ?? [] }, now());
    },
  },
  // Of a batch just poured: its pouring may be taken back, or its lots recalled, meanwhile.
  checkBatch: {
    maybe: true,
    ready: async (db, w) => {
      const batchId = idIn(await out(db, w));
      await pourOf(db, w, batchId, 1);
      const found = { face: inTurn("smooth", "grainy"), scent: "right", closes: "right", labelled: 1, firm: null } as const;
      return (at) => checkBatch(at, { batchId, ...found, verdict: inTurn("release", "hold"), note: "as it is" }, now());
    },
  },
  spoilBatch: {
    ready: async (db, w) => {
      const batchId = idIn(await out(db, w));
      const [first] = (await readBatch(db, batchId))!.takes;
      await weighOne(db, { batchId, position: first!.position, lotId: first!.lotId, weighed: mg(1000), was: null, by: "hand" });
      return (at) => spoilBatch(at, { batchId, why: "burnt" }, now());
    },
  },
  keepBatchPhoto: {
    ready: async (db, w) => {
      const batchId = idIn(await out(db, w));
      return (at) => keepBatchPhoto(at, { batchId, file: { name: "spoon.png", bytes: PICTURE } }, now());
    },
  },
  clearBatch: {
    ready: async (db, w) => {
      const batchId = idIn(await out(db, w));
      return (at) => clearBatch(at, { batchId }, now());
    },
  },
} as const satisfies Record<string, Contestant>;
