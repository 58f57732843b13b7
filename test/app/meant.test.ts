/** Names on a sheet mean what they meant when they were typed, whatever the shelf calls things by the time the sheet is kept. */
import { readJar } from "#db/jars/read";
import { readWhole } from "#db/recipe/read";
import { listMaterials } from "#db/shelf/materials";
import { readReceipt } from "#db/shelf/receipts/receipts";
import { lot, material } from "#db/schema";
import { desc, eq } from "drizzle-orm";
import { beforeAll, expect, it } from "vitest";
import { action as fill } from "#app/jars/fill.tsx";
import { action as write } from "#app/recipes/write.tsx";
import { action as opening } from "#app/shelf/opening/opening.tsx";
import { action as receive } from "#app/shelf/receipts/receive.tsx";
import { loader as ask } from "#app/names/ask.ts";
import { db, theDemo } from "./demo.ts";
import { post, type Action } from "./posting.ts";

theDemo();

/** Castor oil and dried meadowsweet are called otherwise by now, and others have their names. */
let castor: number;
let herb: number;
const [CASTOR, HERB] = ["Castor oil", "Meadowsweet flowers, dried"];
beforeAll(async () => {
  for (const name of [CASTOR, HERB]) {
    const { id, ...facts } = (await listMaterials(db)).find((m) => m.name === name)!;
    await db
      .update(material)
      .set({ name: `${name}, of before` })
      .where(eq(material.id, id));
    await db.insert(material).values({ ...facts, name });
    if (name === CASTOR) castor = id;
    else herb = id;
  }
});

const idIn = (to: string): number => Number(/(\d+)(?!.*\d)/.exec(to)![1]);

it("on a receipt and on the sheet of opening stock", async () => {
  const line = { material: " castor OIL", packs: "1", packSize: "250 mL", price: "10.00", supplierLot: "", bestBefore: "" };
  const sheet = { supplier: "Far Shore", day: "2026-11-20", lines: [line] };
  const of = async (body: object) => (await readReceipt(db, idIn((await post(receive, body)).to)))!.lines[0]!.line.materialId;
  expect(await of({ ...sheet, means: [["bought castor oil", castor]] })).toBe(castor);
  // Meant otherwise by nobody, or by nonsense, it is what is called so now.
  for (const means of [undefined, "castor oil", [["bought castor oil"]], [["bought castor oil", 99_999]], [["jar castor oil", castor]]])
    expect(await of({ ...sheet, means })).not.toBe(castor);
  const stock = { lines: [{ material: CASTOR, amount: "120 g", cost: "1", known: "paid", bought: "", supplierLot: "", bestBefore: "" }] };
  expect((await post(opening, { ...stock, means: [["material castor oil", castor]] })).status).toBe(302);
  expect((await db.select({ of: lot.materialId }).from(lot).orderBy(desc(lot.id)).limit(1))[0]!.of).toBe(castor);
});

it("in a jar and in a recipe", async () => {
  const jar = {
    ...{ name: "", method: "plate", ownDays: "", ownHours: "", day: "2026-11-25", wished: "", by: "ratio", oil: "50 g", ratio: "10" },
    holds: "500 mL",
    herbs: [{ material: HERB, lot: "", cut: "whole", parts: "1" }],
    carriers: [{ material: CASTOR, lot: "", parts: "1" }],
  };
  // What is called so now has no lot.
  expect(await post(fill, jar)).toMatchObject({ status: 422, fields: expect.arrayContaining(["herbs.0.lot"]) as string[] });
  const { to } = await post(fill, {
    ...jar,
    means: [
      [`jar ${HERB.toLowerCase()}`, herb],
      ["jar castor oil", castor],
    ],
  });
  expect(new Set((await readJar(db, idIn(to)))!.parts.map((p) => p.material.id))).toEqual(new Set([herb, castor]));
  const recipe = {
    ...{ name: "Lash oil", code: "LO", type: "balm", makes: "", loss: "2", keepsMonths: "12", batchMinutes: "20", method: "", note: "" },
    ...{ usedOn: "", forWhom: "anyone" },
    lines: [{ material: CASTOR, entered: "100 g", form: "" }],
    sizes: [{ id: "", container: "", fill: "10 g", minutes: "2", away: "", packaging: [] }],
  };
  const made = await post(write, { ...recipe, means: [["material castor oil", castor]] });
  expect(made).toMatchObject({ status: 302, fields: [], say: "" });
  expect((await readWhole(db, idIn(made.to)))!.lines.map((l) => l.materialId)).toEqual([castor]);
});

it("a sheet that knows what it means asks for it by number", async () => {
  const url = `http://127.0.0.1/demo/named/bought?id=${castor}&name=${encodeURIComponent(HERB)}`;
  const found = (await (ask as unknown as Action)({ request: new Request(url), params: { of: "bought" }, context: {} })) as {
    id: number;
    name: string;
  }[];
  expect(found.map((m) => m.name).sort()).toEqual(["Castor oil, of before", HERB]);
});
