/** Every list of the demo workshop as its page is given it, against the rows of the database. */
import { KINDS, KIND_IDS } from "#core/material/kinds";
import { readTable } from "#core/intake/table";
import { dayResult } from "#core/market/day";
import { listGiftOrders } from "#db/gifts/gifts";
import { listMarketDays } from "#db/markets/markets";
import { whatToBuy } from "#db/shelf/buying";
import { cachedSettings } from "#db/settings/settings";
import { listMaterials } from "#db/shelf/materials";
import { contact, lot, movement } from "#db/schema";
import { eq } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { loader as gifts } from "#app/gifts/gifts.tsx";
import { action as recallAct } from "#app/lots/recall/recall.tsx";
import { action as beginRecall } from "#app/lots/recall/begin.tsx";
import { loader as recalls } from "#app/lots/recall/recalls.tsx";
import { loader as markets } from "#app/markets/markets.tsx";
import { loader as people } from "#app/people/people.tsx";
import { loader as prices } from "#app/prices/prices.tsx";
import { loader as recipes } from "#app/recipes/recipes.tsx";
import { loader as shopping } from "#app/shelf/buying/shoppingCsv.ts";
import { loader as history } from "#app/shelf/materials/history.tsx";
import { loader as shelf } from "#app/shelf/shelf.tsx";
import { loader as worth } from "#app/shelf/worthByCostingMethod.ts";
import { DAY, db, theDemo } from "./demo.ts";
import { load, post } from "./posting.ts";

theDemo();

/** Sums by a key. */
function sums<T>(rows: readonly T[], key: (row: T) => number | null, value: (row: T) => number): Map<number, number> {
  const out = new Map<number, number>();
  for (const row of rows) {
    const k = key(row);
    if (k !== null) out.set(k, (out.get(k) ?? 0) + value(row));
  }
  return out;
}

describe("the shelf", () => {
  it("has of each material what its lots have, the soonest best-before first, and says how many lots it doesn't show", async () => {
    const lots = await db.select().from(lot);
    const onHand = sums(
      lots,
      (l) => l.materialId,
      (l) => l.onHand,
    );
    const there = sums(
      lots.filter((l) => l.onHand > 0),
      (l) => l.materialId,
      () => 1,
    );
    let seen = 0;
    for (const board of KIND_IDS) {
      const { materials } = await load(shelf, `/shelf?board=${board}`);
      for (const m of materials) {
        seen++;
        expect(m.onHand, m.name).toBe(onHand.get(m.id) ?? 0);
        expect(m.tags.length + m.untagged, m.name).toBe(there.get(m.id) ?? 0);
        const dates = m.tags.filter((t) => !t.hold).map((t) => t.bestBefore ?? "9999");
        expect(dates, m.name).toEqual([...dates].sort());
      }
    }
    expect(seen).toBeGreaterThan(20);
  });
  it("finds by a part of a name, and has nothing where nothing fits", async () => {
    expect((await load(shelf, "/shelf?find=beeswax")).materials.map((m) => m.name)).toContain("Beeswax, yellow");
    expect((await load(shelf, "/shelf?find=moondust")).materials).toEqual([]);
  });
  it("is worth what its lots are worth, ingredients and packaging apart", async () => {
    const kindOf = new Map((await listMaterials(db)).map((m) => [m.id, KINDS[m.kind].group]));
    const of = (group: string, rows: readonly (typeof lot.$inferSelect)[]) =>
      rows.filter((l) => l.materialId !== null && kindOf.get(l.materialId) === group).reduce((a, l) => a + l.value, 0);
    const lots = await db.select().from(lot);
    const said = await load(worth, "/shelf/worth");
    expect(said.ingredient.lot).toBe(of("ingredient", lots));
    expect(said.packaging.lot).toBe(of("packaging", lots));
  });
  it("is to be filled up by a file: in grams what is weighed, in pieces what is counted, with the packs that come to it", async () => {
    const file = await load(shopping, "/shelf/shopping.csv");
    expect(file.headers.get("content-disposition")).toBe(`attachment; filename="shopping-${DAY}.csv"`);
    const table = readTable(await file.text());
    if (!table.ok) throw new Error(table.problem.say);
    const wanted = await whatToBuy(db, DAY, await cachedSettings(db));
    expect(table.value.rows.length).toBe(wanted.length);
    for (const [, name, amount, unit, packs, , price] of table.value.rows) {
      const of = wanted.find((w) => w.name === name)!;
      const weighed = KINDS[of.kind].measured === "weight";
      expect([unit, Number(amount)], name).toEqual([weighed ? "g" : "pcs", weighed ? of.amount / 1000 : of.amount]);
      expect(packs === "", name).toBe(price === "");
    }
  });
});

it("a material's history is all of its movements, a page at a time, newest first", async () => {
  const all = await db.select({ id: movement.id, of: lot.materialId }).from(movement).innerJoin(lot, eq(lot.id, movement.lotId));
  const most = [
    ...sums(
      all,
      (m) => m.of,
      () => 1,
    ),
  ].sort((a, b) => b[1] - a[1])[0]!;
  const id = String(most[0]);
  let rows = 0;
  let before = "";
  for (;;) {
    const page = await load(history, `/shelf/${id}/history${before}`, { id });
    expect(page.first).toBe(before === "");
    rows += page.rows.length;
    if (!page.more) break;
    before = `?before=${page.rows.at(-1)!.id}`;
  }
  expect(rows).toBe(most[1]);
});

describe("what was sold", () => {
  it("a market day's sums are those of its lines, its fees and what its units cost", async () => {
    const days = new Map((await listMarketDays(db)).map((d) => [d.id, d]));
    const { rows, more } = await load(markets, "/markets");
    expect(more).toBe(false);
    expect(rows.length).toBe(days.size);
    for (const r of rows) {
      const d = days.get(r.id)!;
      expect(r).toMatchObject({
        name: d.name,
        day: d.day,
        closed: d.closedActId !== null,
        fees: d.stallFee + d.travel,
        hours: d.minutes / 60,
      });
      expect(r.taken, d.name).toBe(d.lines.reduce((a, l) => a + l.taken, 0));
      if (r.closed) expect({ ...r, ...r.known }, d.name).toMatchObject(dayResult({ ...d, hours: d.minutes / 60 }));
    }
  });
  it("an order's price is its units at theirs, with what is extra, less the discount", async () => {
    const orders = new Map((await listGiftOrders(db)).map((o) => [o.id, o]));
    const { rows } = await load(gifts, "/gifts");
    expect(rows.length).toBe(orders.size);
    for (const r of rows) {
      const o = orders.get(r.id)!;
      const goods = o.items.reduce((a, i) => a + i.units * i.price, 0);
      expect(r.price, r.customer).toBe(Math.round((goods + o.extra) * (1 - o.discountBp / 10_000)));
      expect(r.items.split(", ").length, r.customer).toBeGreaterThanOrEqual(o.items.length);
      expect(r.packed).toBe(o.packedActId !== null);
      if (r.packed) expect(r).toMatchObject({ standing: null, steps: [] });
    }
    expect(rows.some((r) => !r.packed && r.standing !== null)).toBe(true);
  });
  it("a product's margin is its price less its fee and its cost", async () => {
    const { products: rows } = await load(prices, "/prices");
    const { pricing } = await cachedSettings(db);
    let seen = 0;
    for (const r of rows)
      for (const [i, channel] of (["market", "online", "wholesale", "gift"] as const).entries()) {
        const view = r.views[i]?.view;
        if (!view) continue;
        seen++;
        expect(view.margin, `${r.name} ${channel}`).toBe(
          view.price - Math.round((view.price * pricing.channels[channel].feeBp) / 10_000) - r.cost!,
        );
      }
    expect(seen).toBeGreaterThan(10);
  });
});

it("recipes: the wax is the waxes' share of all that goes in, and a batch is the sum of its lines", async () => {
  const { recipes: rows, away } = await load(recipes, "/recipes");
  expect(away).toEqual([]);
  const balm = rows.find((r) => r.name === "Sea buckthorn hand balm")!;
  expect(balm.wax).toBeCloseTo(75.71 / 494.5, 3);
  expect(balm.batch / 1000).toBeCloseTo(494.5, 0);
  for (const r of rows)
    for (const s of r.sizes)
      expect(
        s.perUnit.every((c) => c === null || c > 0),
        `${r.name} ${s.label}`,
      ).toBe(true);
});

it("people are listed by their kind, and by no other", async () => {
  const all = await db.select().from(contact);
  for (const kind of ["supplier", "customer", "market"] as const) {
    const said = await load(people, `/people?of=${kind}`);
    expect(said.kind).toBe(kind);
    expect(said.all.length).toBeGreaterThanOrEqual(all.filter((c) => c.kind === kind && !c.retired).length);
  }
  expect((await load(people, "/people?of=moon")).kind).toBe("supplier");
});

it("a recall is open until it is closed, and then says how long it took", async () => {
  const [one] = (await db.select().from(lot)).filter((l) => l.materialId !== null && l.onHand > 0);
  const { to } = await post(beginRecall, { lots: [String(one!.id)], reason: "Grit", toDo: "Stop", rehearsal: true });
  const id = /\d+$/.exec(to)![0];
  const mine = async () => (await load(recalls, "/lots/recalls")).find((r) => r.id === Number(id))!;
  expect(await mine()).toMatchObject({ closed: false, took: null });
  expect(await post(recallAct, { intent: "close", free: "perhaps" }, id)).toMatchObject({ status: 422 });
  expect(await post(recallAct, { intent: "close", free: true }, id)).toMatchObject({ status: 302 });
  const closed = await mine();
  expect(closed.closed).toBe(true);
  expect(closed.took).toBeGreaterThanOrEqual(0);
});
