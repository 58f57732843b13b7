/** Side requests of a recipe's sheet, on the demo: its file, substitutes, pack offers, and recipes that use a lot up. */
import { readRecipeFile } from "#core/recipe/portable";
import { likeKinds, onHandOf } from "#core/recipe/instead/standIn";
import type { Scribbled } from "#core/recipe/scribbled/read";
import { readWritten } from "#core/recipe/written";
import { lotsOfMaterials } from "#db/ledger/lots";
import { materialsOf } from "#db/recipe/costs";
import { readRecipes, type WrittenRecipe } from "#db/recipe/read";
import { materialsNamed } from "#db/shelf/materials";
import { beforeAll, describe, expect, it } from "vitest";
import { usesUp } from "#app/lots/usesUp.server.ts";
import { loader as offers } from "#app/recipes/cost/offers.ts";
import { loader as standIns } from "#app/recipes/instead/standIns.ts";
import { recipeTexts } from "#app/recipes/recipeTexts.ts";
import { fromPortable } from "#app/recipes/scribbled/portableTexts.ts";
import { loader as file } from "#app/recipes/scribbled/recipeFile.ts";
import { action as scribble } from "#app/recipes/scribbled/scribbled.ts";
import { stuffOf } from "#db/shelf/sheetMaterials";
import { db, theDemo } from "./demo.ts";

let written: WrittenRecipe[];
theDemo();
beforeAll(async () => {
  written = await readRecipes(db);
});

const asking = (query: string) => ({ request: new Request(`http://127.0.0.1/x?${query}`), params: {}, context: {} }) as never;
const fileOf = async (id: number, as: string): Promise<Response> =>
  file({ request: new Request("http://127.0.0.1/x"), params: { id: String(id), as }, context: {} } as never);

describe("a recipe's file", () => {
  it("every recipe of the demo comes back from its JSON to the same grams, sizes and method", async () => {
    for (const w of written) {
      const stuff = await stuffOf(db, materialsOf([w]));
      const answer = await fileOf(w.recipe.id, "json");
      expect(answer.headers.get("content-disposition")).toMatch(/filename="[a-z0-9-]+\.json"/);
      const back = readRecipeFile(await answer.text());
      expect(back.ok).toBe(true);
      const texts = back.ok ? fromPortable(back.value, recipeTexts(null, new Map())) : null;
      const read = readWritten(texts!, stuff);
      expect(read.lines.map((l) => (l.out.ok ? l.out.weight : l.out.problem.code))).toEqual(w.lines.map((l) => l.weight));
      expect(read.sizes.map((s) => (s.fill.ok ? [s.fill.value.label, s.fill.value.weight] : []))).toEqual(
        w.sizes.map((s) => [s.label, s.fill]),
      );
      expect([texts!.name, texts!.method, texts!.type]).toEqual([w.recipe.name, w.recipe.method, w.recipe.type]);
    }
  });
  it("what a file says nothing of stays, what it says is empty is emptied, and no table is left without a row", () => {
    const sheet = { ...recipeTexts(null, new Map()), name: "Mine", makes: "400 g", overrun: "60", method: "Stir." };
    const from = (json: string) => {
      const read = readRecipeFile(json);
      return read.ok ? fromPortable(read.value, sheet) : null;
    };
    expect(from('{ "recipe": 1 }')).toEqual(sheet);
    expect(from('{ "recipe": 1, "batchWeight": "", "airPercent": "", "lines": [], "sizes": [] }')).toMatchObject({
      ...{ name: "Mine", makes: "", overrun: "", method: "Stir." },
      lines: [{ material: "", entered: "" }],
      sizes: [{ container: "", fill: "" }],
    });
  });
  it("its CSV has every line; no other kind of file, and no recipe that isn't there", async () => {
    const csv = readRecipeFile(await (await fileOf(written[0]!.recipe.id, "csv")).text());
    expect(csv.ok && csv.value.lines?.map((l) => l.amount)).toEqual(written[0]!.lines.map((l) => l.entered));
    await expect(fileOf(written[0]!.recipe.id, "xml")).rejects.toMatchObject({ status: 404 });
    await expect(fileOf(99_999, "json")).rejects.toMatchObject({ status: 404 });
  });
});

describe("what may stand in", () => {
  it("is of like kinds: the shelf's own with what is usable of it, the library's that aren't on it, each once", async () => {
    const [wax, oil] = ["Beeswax, yellow", "Sunflower oil, high oleic"].map(
      (n) => written.flatMap((w) => w.lines).find((l) => l.name === n)!.materialId,
    );
    const found = await standIns(asking(`of=${wax}&of=${oil}&of=x`));
    const kinds = new Set([...likeKinds("wax"), ...likeKinds("oil")]);
    expect(found.length).toBeGreaterThan(20);
    expect(found.every((m) => kinds.has(m.kind))).toBe(true);
    expect(new Set(found.map((m) => m.name.toLowerCase())).size).toBe(found.length);
    expect(new Set(found.map((m) => m.id)).size).toBe(found.length);
    const own = found.filter((m) => m.id > 0);
    const lots = await lotsOfMaterials(
      db,
      own.map((m) => m.id),
    );
    for (const m of own) {
      const usable = lots.filter((l) => l.of === m.id && !l.hold && (l.bestBefore === null || l.bestBefore >= "2026-11-25"));
      expect([m.name, onHandOf(m)]).toEqual([m.name, usable.reduce((a, l) => a + l.onHand, 0)]);
    }
    expect(found.filter((m) => m.id < 0).every((m) => m.lots.length === 0 && m.per === null)).toBe(true);
    expect(await standIns(asking(""))).toEqual([]);
  });
  it("packs are those of the materials asked for, and none of others", async () => {
    const ids = materialsOf([written[0]!]);
    const found = await offers(asking(ids.map((id) => `of=${id}`).join("&")));
    expect(found.length).toBeGreaterThan(ids.length / 2);
    expect(found.every((o) => ids.includes(o.materialId) && o.qty > 0 && o.price >= 0)).toBe(true);
    expect(await offers(asking("of=x"))).toEqual([]);
  });
});

it("what is left of a lot: each recipe that takes it, as large a batch as uses exactly that, smallest first", async () => {
  const ids = [...new Set(written.flatMap((w) => w.lines.map((l) => l.materialId)))];
  const materials = await materialsNamed(db, ids, []);
  let found = 0;
  for (const lot of await lotsOfMaterials(db, ids)) {
    const kind = materials.find((m) => m.id === lot.of)!.kind;
    const uses = await usesUp({ materialId: lot.of, kind, onHand: lot.onHand });
    expect(uses.map((u) => u.batch)).toEqual([...uses.map((u) => u.batch)].sort((a, b) => a - b));
    for (const u of uses) {
      const w = written.find((x) => x.recipe.id === u.recipeId)!;
      const line = w.lines.filter((l) => l.materialId === lot.of).reduce((a, l) => a + l.weight, 0);
      expect(Math.abs((u.batch * line) / w.recipe.total - lot.onHand)).toBeLessThan(1);
      expect(u.units * w.sizes[0]!.fill).toBeLessThanOrEqual(u.batch);
    }
    found += uses.length;
  }
  expect(found).toBeGreaterThan(10);
  expect(await usesUp({ materialId: null, kind: null, onHand: 5 })).toEqual([]);
  expect(await usesUp({ materialId: ids[0]!, kind: "wax", onHand: 0 })).toEqual([]);
});

it("a scribble is read against this very shelf: what isn't an ingredient, or was put away, is meant by nobody", async () => {
  const request = new Request("http://127.0.0.1/x", {
    method: "POST",
    body: JSON.stringify({ text: "40 g beeswax\n1 cup sunflower oil\n3 screw tin\nMelt the wax." }),
  });
  const { data } = (await scribble({ request, params: {}, context: {} } as never)) as unknown as {
    data: { lines: Scribbled[]; left: number };
  };
  expect(data.lines.map((l) => l.as)).toEqual(["line", "line", "line", "step"]);
  const [wax, oil, tin] = data.lines.flatMap((l) => (l.as === "line" ? [l.line] : []));
  expect([wax!.material, wax!.entered, oil!.material, oil!.entered]).toEqual([
    "Beeswax, yellow",
    "40 g",
    "Sunflower oil, high oleic",
    "1 cup",
  ]);
  expect(tin!.material).toBe("screw tin");
});
