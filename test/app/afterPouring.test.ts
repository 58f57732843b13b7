/** What is done on a batch's record, as a browser posts it: its check, its setting, and what it teaches. */
import { checksOf } from "#db/bench/finishing/check";
import { readBatch } from "#db/bench/read";
import { readRecipes } from "#db/recipe/read";
import { batch, batchEvent, lot } from "#db/schema";
import { inArray, isNotNull } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { action, loader } from "#app/bench/batch.tsx";
import { db, theDemo } from "./demo.ts";
import { post } from "./posting.ts";

theDemo();

const page = (id: number) =>
  loader({ request: new Request(`http://127.0.0.1/bench/${id}`), params: { id: String(id) }, context: {} } as never);
const record = (id: number, body: object) => post(action, body, String(id));
const RIGHT = { face: "smooth", scent: "right", closes: "right", labelled: "", firm: "", note: "" };
/** The demo's poured batches. */
const poured = async () => db.select().from(batch).where(isNotNull(batch.pouredActId)).orderBy(batch.id);

describe("the record of a poured batch", () => {
  it("is checked: what is amiss is asked about beside its field, and its lots are held back or released with it", async () => {
    const { id } = (await poured()).at(-1)!;
    const ids = (await readBatch(db, id))!.sizes.flatMap((s) => s.lotId ?? []);
    const reasons = async () => (await db.select({ why: lot.holdReason }).from(lot).where(inArray(lot.id, ids))).map((l) => l.why);
    for (const [body, field] of [
      [{ ...RIGHT, intent: "release", face: "hairy" }, "face"],
      [{ ...RIGHT, intent: "release", labelled: "many" }, "labelled"],
      [{ ...RIGHT, intent: "release", labelled: "9999" }, "labelled"],
      [{ ...RIGHT, intent: "release", scent: "off" }, "note"],
      [{ ...RIGHT, intent: "hold", labelled: "42" }, "note"],
    ] as const)
      expect(await record(id, body)).toMatchObject({ status: 422, fields: [field] });
    expect(await checksOf(db, id)).toEqual([]);
    expect(await record(id, { ...RIGHT, intent: "hold", closes: "some", note: "Twelve lids" })).toMatchObject({ status: 302 });
    expect(new Set(await reasons())).toEqual(new Set(["Check: some don’t close, or broke, no labels yet, Twelve lids"]));
    expect(await record(id, { ...RIGHT, intent: "release", note: "New lids" })).toMatchObject({ status: 302 });
    expect(new Set(await reasons())).toEqual(new Set([null]));
    expect((await page(id)).checks.map((c) => [c.verdict, c.note])).toEqual([
      ["release", "New lids"],
      ["hold", "Twelve lids"],
    ]);
  });

  it("sets until somebody says it is done; pressed twice, it was the first time", async () => {
    const { id } = (await poured()).at(-1)!;
    await db.insert(batchEvent).values({ batchId: id, kind: "set", who: "Maker", minutes: 40, note: "cap" });
    const ended = async () => (await page(id)).events.find((e) => e.kind === "set")!.endedAt;
    expect(await ended()).toBeNull();
    await record(id, { intent: "capped" });
    const first = await ended();
    expect(first).not.toBeNull();
    await record(id, { intent: "capped" });
    expect(await ended()).toEqual(first);
  });

  it("teaches the newest version of its recipe, and no other: written so it teaches nothing more", async () => {
    let taught = 0;
    for (const { id, recipeId } of await poured()) {
      const { taught: said, plan, sheet } = await page(id);
      const changes = said?.changes;
      expect(plan!.minutes).toBeGreaterThan(0);
      if (!changes?.length) continue;
      taught++;
      const keys = changes.map((c) => c.key);
      expect(await record(id, { intent: "learn", keys: [] })).toMatchObject({ status: 422 });
      expect(await record(id, { intent: "learn", keys: [`${keys[0]!}9`] })).toMatchObject({ status: 422 });
      expect(await record(id, { intent: "learn", keys })).toMatchObject({ status: 302 });
      const [now] = await readRecipes(db, [recipeId]);
      expect(now!.recipe.n).toBe(sheet.recipe.n + 1);
      for (const c of changes) {
        if (c.of === "loss") expect(now!.recipe.lossBp).toBe(c.now);
        if (c.of === "minutes") expect(now!.recipe.batchMinutes).toBe(c.now);
      }
      expect(now!.lines.reduce((a, l) => a + l.weight, 0)).toBe(now!.recipe.total);
      expect((await page(id)).taught).toBeNull();
      expect(await record(id, { intent: "learn", keys })).toMatchObject({ status: 422 });
    }
    expect(taught).toBeGreaterThan(0);
  });
});
