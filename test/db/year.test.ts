/**
 * A random year is lived in a workshop, corrected and partly taken back, and reckoned a second time by a model that knows nothing of the first
 * (test/db/reckoning.ts): what is on hand to the milligram, what it is worth, what batches, market days and orders cost and came to, what was used in
 * which month, and where every unit is.
 */
import { dayResult } from "#core/market/day";
import { Refused } from "#core/refused";
import { addDays } from "#core/when";
import { isNotNull } from "drizzle-orm";
import fc from "fast-check";
import Fraction from "fraction.js";
import { expect, it } from "vitest";
import { batchResult } from "#db/bench/finishing/result";
import { packedLots } from "#db/gifts/pack";
import { reachOf } from "#db/lots/reach";
import { listMarketDays } from "#db/markets/markets";
import { batch, giftOrder, lot } from "#db/schema";
import { monthlyUse } from "#db/shelf/buying";
import { saveMaterial } from "#db/shelf/keepMaterial";
import { expectLedgerTrue } from "./fresh.ts";
import { PLACES, reckon } from "./reckoning.ts";
import { aWorkshop, idIn } from "./workshop.ts";
import { DOES, type Written, type Year } from "./aYear.ts";

const YEARS = 2;
const BEGINS = "2025-10-01";
/** What rounding each draw to the micro may come to in a year, in micros: a fiftieth of a cent. */
const ROUNDED = 200;
const inMicros = (f: Fraction): number => f.mul(10_000).valueOf();

async function compare(y: Year, written: readonly Written[]): Promise<void> {
  const r = reckon(written.map((w) => w.fact));
  const near = (n: number, f: Fraction, what: string): void => expect(Math.abs(n - inMicros(f)), what).toBeLessThanOrEqual(ROUNDED);
  for (const l of await y.db.select().from(lot)) {
    const own = r.lots.get(l.id);
    expect(l.onHand, l.number).toBe(own?.onHand ?? 0);
    near(l.value, own?.value ?? new Fraction(0), l.number);
    if (l.productId === null || !own) continue;
    const account = (await reachOf(y.db, [l.id])).accounts.get(l.id)!;
    expect(Object.fromEntries(PLACES.map((p) => [p, account[p]])), l.number).toEqual(own.places);
    expect(account.came, l.number).toBe(account.here + PLACES.reduce((n, p) => n + account[p], 0));
  }
  for (const d of (await listMarketDays(y.db)).filter((x) => x.closedActId !== null)) {
    const day = r.days.get(d.id)!;
    const result = dayResult({ ...d, hours: d.minutes / 60 });
    near(result.stockCost, day.stock, `stock of day ${d.id}`);
    // A card's fee is rounded to the micro by itself.
    near(result.profit, day.profit, `profit of day ${d.id}`);
  }
  for (const o of await y.db.select().from(giftOrder).where(isNotNull(giftOrder.packedActId))) {
    const value = (await packedLots(y.db, o.id)).reduce((n, l) => n + l.value, 0);
    near(value, r.orders.get(o.id)!, `order ${o.id}`);
  }
  for (const b of await y.db.select().from(batch).where(isNotNull(batch.pouredActId))) {
    const [result, own] = [(await batchResult(y.db, b))!, r.batches.get(b.id)!];
    expect(result.lost, `batch ${b.id}`).toBe(own.lost);
    result.perUnit.forEach((u, i) => near(u.materials, own.each[i]!, `batch ${b.id}, size ${i}`));
  }
  const materials = [y.ids.oil, y.ids.wax, y.herb];
  const of = new Map((await y.db.select().from(lot)).map((l) => [l.id, l.materialId]));
  const used = new Map<string, number>();
  for (const [key, qty] of r.used) {
    const [lotId, month] = key.split(" ") as [string, string];
    const at = `${of.get(Number(lotId))} ${month}`;
    used.set(at, (used.get(at) ?? 0) + qty);
  }
  const said = new Map(
    [...(await monthlyUse(y.db, y.day, materials))].flatMap(([id, months]) =>
      months.flatMap((m) => (m.used > 0 ? [[`${id} ${m.month.slice(0, 7)}`, m.used] as const] : [])),
    ),
  );
  // As far back as it teaches anything.
  const from = [...said.keys()].map((key) => key.split(" ")[1]!).sort()[0] ?? "";
  expect(said).toEqual(
    new Map([...used].filter(([key, qty]) => key.split(" ")[1]! >= from && materials.includes(Number(key.split(" ")[0])) && qty > 0)),
  );
  await expectLedgerTrue(y.db);
}

type Kind = keyof typeof DOES;
const KINDS = Object.keys(DOES) as Kind[];
const OFTEN: Kind[] = ["buy", "pour", "pour", "pour", "market", "order"];
const year = fc.array(
  fc.record({ do: fc.constantFrom(...KINDS, ...OFTEN), a: fc.noBias(fc.nat(997)), b: fc.noBias(fc.integer({ min: 1, max: 1000 })) }),
  {
    minLength: 240,
    maxLength: 240,
  },
);

it("a random year, reckoned twice", async () => {
  const done = new Map<string, number>();
  for (const dice of fc.sample(year, { numRuns: YEARS, seed: fc.readConfigureGlobal().seed ?? 1 })) {
    const w = await aWorkshop();
    const y: Year = {
      ...w,
      herb: idIn(await saveMaterial(w.db, { name: "Herb", kind: "herb", densities: {} }, { day: BEGINS })),
      day: BEGINS,
    };
    try {
      // What a workshop begins with: four receipts of one line.
      const written: Written[] = (await y.db.select().from(lot).orderBy(lot.id)).map((l) => ({
        fact: {
          do: "buy",
          lines: [{ lot: l.id, qty: l.onHand, cents: Math.round(l.value / 10_000) - 101 }],
          postage: 101,
          tax: 0,
          discount: 0,
        },
        actId: 0,
      }));
      for (const [i, d] of dice.entries()) {
        if (i % 40 === 39) await compare(y, written);
        y.day = addDays(BEGINS, Math.floor((i * 365) / dice.length));
        const fact = await DOES[d.do](y, d.a, d.b, written).catch((e: unknown) => {
          if (e instanceof Refused) return "refused" as const;
          throw e;
        });
        if (fact === null || fact === "refused") continue;
        if (fact !== "done") written.push(fact);
        done.set(d.do, (done.get(d.do) ?? 0) + 1);
      }
      await compare(y, written);
    } finally {
      await w.drop();
    }
  }
  // Each of them happened, and not only once.
  for (const kind of KINDS) expect(done.get(kind) ?? 0, kind).toBeGreaterThan(5);
});
