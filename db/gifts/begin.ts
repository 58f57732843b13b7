/** What is to be begun for each order that isn't packed: the steps of core/gift/begin, with what everything is called. */
import { stateOfOrder, stepsFor, tooLate, unitNeeds, type OrderStep } from "#core/gift/begin";
import type { Standing } from "#core/gift/standing";
import { method } from "#core/infusion/methods";
import { kind } from "#core/material/kinds";
import { unreserved } from "#core/stock/reservations";
import { stockOnHand } from "#core/stock/shelf";
import type { Day } from "#core/when";
import { and, eq, gt } from "drizzle-orm";
import { onTheBench } from "../bench/planning/standing.ts";
import { readReservations } from "../bench/planning/reservations.ts";
import type { Reads } from "../client.ts";
import { jarsGiving, steepedHere } from "../jars/giving.ts";
import { lotsOfMaterials } from "../ledger/lots.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { productsNamed, readRecipes } from "../recipe/read.ts";
import { batch, batchSize, material } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";
import { comingOf } from "../shelf/low.ts";
import { ordersLacking } from "./lacking.ts";

/** A step with what it is about, a product or a material and how that is measured; how a jar is steeped; and whether it is too late for it. */
export type NamedStep = OrderStep & { name: string; measured: "weight" | "count"; how: string; late: boolean };

export interface OrderState {
  orderId: number;
  customer: string;
  due: Day;
  /** Units asked for in all. */
  wished: number;
  standing: Standing;
  /** What presses most first; none where it could be packed now. */
  steps: NamedStep[];
}

/** What batches on the bench are to fill. */
const onBench = (db: Reads) =>
  runPrepared(db, "bench_fills", {}, () =>
    db
      .select({ batchId: batch.id, productId: batchSize.productId, units: batchSize.planned })
      .from(batchSize)
      .innerJoin(batch, eq(batch.id, batchSize.batchId))
      .where(and(onTheBench, gt(batchSize.planned, 0))),
  );

const called = (db: Reads, ids: readonly number[]) =>
  runPrepared(db, "materials_called", { ids }, (at) =>
    db.select({ id: material.id, name: material.name, kind: material.kind }).from(material).where(anyOf(material.id, at.ids)),
  );

/** Every order that isn't packed, soonest due first. */
export async function openOrders(db: Reads, today: Day): Promise<OrderState[]> {
  const lacking = await ordersLacking(db, today);
  if (lacking.every((o) => o.units.length === 0 && o.pieces.length === 0))
    return lacking.map(({ units: _, pieces: __, ...o }) => ({ ...o, standing: stateOfOrder(o.due, [], today), steps: [] }));
  const wanted = [...new Set(lacking.flatMap((o) => o.units.map((u) => u.productId)))];
  const products = new Map((await productsNamed(db, wanted, [])).map((p) => [p.id, p]));
  const recipes = await readRecipes(db, [...new Set([...products.values()].map((p) => p.recipeId))]);
  const makes = new Map(recipes.flatMap((w) => [...w.sizes, ...w.variants].map((size) => [size.id, { w, size }] as const)));
  const make = (productId: number, units: number) => {
    const of = makes.get(productId);
    return !of || products.get(productId)!.retired ? null : { recipeId: of.w.recipe.id, needs: unitNeeds(of.w, of.size, units) };
  };
  const takes = wanted.flatMap((id) => make(id, 1)?.needs.map((n) => n.of) ?? []);
  const materials = [...new Set([...takes, ...lacking.flatMap((o) => o.pieces.map((p) => p.materialId))])];
  const [lots, spoken, bench, jars, steeped, coming, { leadDays }, names] = [
    await lotsOfMaterials(db, materials),
    await readReservations(db),
    await onBench(db),
    await jarsGiving(db, materials),
    await steepedHere(db, materials),
    await comingOf(db, materials),
    await readSettings(db),
    new Map((await called(db, materials)).map((m) => [m.id, m])),
  ];
  const steps = stepsFor(lacking, {
    today,
    make,
    bench,
    shelf: stockOnHand(unreserved(lots, spoken, today), today),
    jars,
    steeped,
    coming,
    leadDays,
  });
  const named = (s: OrderStep): NamedStep => {
    const also = { how: s.does === "fill" ? method(s.method).label.toLowerCase() : "", late: tooLate(s, today) };
    if ("productId" in s) {
      const p = products.get(s.productId)!;
      return { ...s, ...also, name: `${p.recipe}, ${p.label}`, measured: "count" };
    }
    const m = names.get(s.materialId)!;
    return { ...s, ...also, name: m.name, measured: kind(m.kind).measured };
  };
  return lacking.map(({ units: _, pieces: __, ...o }) => {
    const own = steps.get(o.orderId)!;
    return { ...o, standing: stateOfOrder(o.due, own, today), steps: own.map(named) };
  });
}
