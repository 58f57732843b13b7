/**
 * Every sheet that is given a material checks it: the library's newest cautions on it and on its parts appear beside the maker's own. In
 * the demo, whose materials keep no caution of their own here. /
 */
import { batchTake, jar, material } from "#db/schema";
import { factsOfParts } from "#db/shelf/madeOf";
import { readJar } from "#db/jars/read";
import { eq } from "drizzle-orm";
import { beforeAll, expect, it } from "vitest";
import { loader as batchLoader } from "#app/bench/batch.tsx";
import { loader as productLoader } from "#app/prices/product.tsx";
import { loader as standInsLoader } from "#app/recipes/instead/standIns.ts";
import { loader as materialLoader } from "#app/shelf/materials/material.tsx";
import { jarStuffOf } from "#db/jars/jarStuff";
import { stuffOf } from "#db/shelf/sheetMaterials";
import { db, theDemo } from "./demo.ts";

theDemo();
beforeAll(async () => {
  await db.update(material).set({ cautions: [] });
});
const of = async (key: string) => (await db.select().from(material).where(eq(material.libraryKey, key)))[0]!;
const args = (params: Record<string, string>, query = "") =>
  ({ params, request: new Request(`http://127.0.0.1/x${query}`), context: {} }) as never;

it("in a recipe, among what may stand in, in a jar, and on its own sheet", async () => {
  const [juniper, meadowsweet] = [await of("eo-juniper"), await of("meadowsweet")];
  expect((await stuffOf(db, [juniper.id]))[0]!.cautions).toContain("pregnancy");
  const standIns = await standInsLoader(args({}, `?of=${juniper.id}`));
  expect(standIns.find((s) => s.id === juniper.id)!.cautions).toContain("pregnancy");
  expect((await jarStuffOf(db, [meadowsweet.id]))[0]!.cautions).toEqual(["salicylate"]);
  expect((await materialLoader(args({ id: String(meadowsweet.id) }))).material.cautions).toEqual(["salicylate"]);
});

it("in a jar that stands, and in the oil that comes of it; what a base is made of counts as well", async () => {
  const all = await Promise.all((await db.select({ id: jar.id }).from(jar)).map((j) => readJar(db, j.id)));
  const steeped = all.find((j) => j?.parts.some((p) => p.material.libraryKey === "meadowsweet"))!;
  expect(factsOfParts(steeped.parts.map((p) => p.material)).cautions).toContain("salicylate");
  const { name, kind } = await of("eo-juniper");
  const base = { ...(await of("sunflower-oleic")), kind: "base" as const, libraryKey: null };
  const made = { ...base, makeup: [{ name, kind, libraryKey: "eo-juniper", meltFrom: null, meltTo: null, share: 0.01 }] };
  expect(factsOfParts([made]).cautions).toEqual(["ages", "pregnancy"]);
});

it("on a batch's record, by the name it had then and in the order it went in, and beside a product's prices", async () => {
  const juniper = await of("eo-juniper");
  const [take] = await db.select().from(batchTake).where(eq(batchTake.materialId, juniper.id));
  await db.update(material).set({ name: "Zz, called otherwise now" }).where(eq(material.id, juniper.id));
  const { minded, sheet } = await batchLoader(args({ id: String(take!.batchId) }));
  expect(minded.cautions.find((c) => c.id === "pregnancy")!.of).toEqual([juniper.name]);
  const product = sheet.sizes[0]!.productId;
  expect((await productLoader(args({ id: String(product) }))).minded.cautions.map((c) => c.id)).toContain("pregnancy");
});
