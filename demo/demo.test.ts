/** The demo workshop: of the promised size, true in its ledger, and traceable from any sold tin to every lot in it. */
import { KINDS } from "#core/material/kinds";
import { addDays, daysBetween } from "#core/when";
import { listBatches } from "#db/bench/read";
import type { OpenDb } from "#db/client";
import { listGiftOrders } from "#db/gifts/gifts";
import { traceLot } from "#db/lots/trace";
import { listMarketDays } from "#db/markets/markets";
import { costRecipes } from "#db/recipe/costs";
import { lot } from "#db/schema";
import { readSettings } from "#db/settings/settings";
import { listMaterials } from "#db/shelf/materials";
import { expectLedgerTrue, freshDb } from "#test/db/fresh";
import { workItems } from "#db/today/today";
import { isNotNull, sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { loadDemo } from "./load.ts";

// A leap year's end: the hardest day to date things from.
const TODAY = "2028-02-29";
let db: OpenDb;
let drop: () => Promise<void>;

beforeAll(async () => {
  ({ db, drop } = await freshDb());
  await loadDemo(db, TODAY);
});
afterAll(() => drop());

describe("the demo workshop", () => {
  it("has about what a real one has", async () => {
    expect((await listMaterials(db)).length).toBeGreaterThanOrEqual(45);
    expect((await db.select().from(lot).where(isNotNull(lot.materialId))).length).toBeGreaterThanOrEqual(80);
    const recipes = await costRecipes(db, await readSettings(db), TODAY);
    expect(recipes).toHaveLength(8);
    expect(new Set(recipes.map((r) => r.recipe.type)).size).toBe(5);
    const batches = await listBatches(db);
    expect(batches.filter((b) => b.poured)).toHaveLength(15);
    expect(batches.filter((b) => !b.poured)).toHaveLength(1);
    for (const b of batches) expect(daysBetween(b.day, TODAY)).toBeLessThan(185);
    const days = await listMarketDays(db);
    expect(days.filter((d) => d.closedActId !== null)).toHaveLength(4);
    expect(await listGiftOrders(db)).toHaveLength(6);
  });
  it("every recipe has a unit cost a maker would believe, and the dearer school is the dearer one", async () => {
    for (const r of await costRecipes(db, await readSettings(db), TODAY)) {
      for (const { cost } of r.sizes)
        for (const c of Object.values(cost.perUnit)) {
          expect(c!.total).toBeGreaterThan(800_000);
          expect(c!.total).toBeLessThan(12_000_000);
        }
    }
  });
  it("keeps its ledger true", () => expectLedgerTrue(db));
  it("happened in order: nothing left a lot before it came in, and nothing is dated after today", async () => {
    const early = await db.execute(
      sql`select m.id from movement m join act a on a.id = m.act_id join lot l on l.id = m.lot_id where a.day < l.arrived or a.day > ${TODAY}`,
    );
    expect(early.rows).toEqual([]);
  });
  it("every finished lot leads back to each ingredient and pack of its recipe, and keeps no longer than any of them", async () => {
    for (const made of await db.select().from(lot).where(isNotNull(lot.productId))) {
      const t = await traceLot(db, made.id);
      const wanted = await db.execute<{ id: number }>(sql`
        select rl.material_id id from recipe_line rl join recipe r on r.version_id = rl.version_id join product p on p.recipe_id = r.id where p.id = ${made.productId}
        union select pp.material_id from product_packaging pp where pp.product_id = ${made.productId}`);
      expect(new Set(t.back.filter((s) => s.depth === 1).map((s) => s.lot.materialId))).toEqual(new Set(wanted.rows.map((r) => r.id)));
      // An infused oil leads on to its herb and its carrier.
      if (t.back.some((s) => s.lot.kind === "infusedOil")) {
        const beyond = t.back.filter((s) => s.depth > 1).map((s) => s.lot.kind);
        expect(beyond).toContain("herb");
        expect(beyond).toContain("oil");
      }
      for (const s of t.back.filter((x) => x.depth === 1))
        if (s.lot.bestBefore && KINDS[s.lot.kind!].group === "ingredient") expect(made.bestBefore! <= s.lot.bestBefore).toBe(true);
      for (const s of t.back) expect((await traceLot(db, s.lot.id)).forward.some((f) => f.lot.id === made.id)).toBe(true);
    }
  });
  it("gives Today something from every station that can wait", async () => {
    const waits = new Set((await workItems(db, TODAY)).map((w) => `${w.station} ${w.kind}`));
    for (const w of ["bench open", "shelf low", "shelf soon", "shelf expired", "cabinet soon", "gifts toPack", "markets comingUp"])
      expect(waits).toContain(w);
    expect((await workItems(db, addDays(TODAY, 400))).filter((w) => w.kind === "toClose")).toHaveLength(1);
  });
});
