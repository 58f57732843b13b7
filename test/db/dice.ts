/**
 * Acts by dice, for tests that do them at random: each is chosen in a workshop by what there is to do it to, and comes back as what it was
 * told, so that it can be done there, and again in another workshop where things have other numbers.
 *
 * All that move a lot, or say what it may be used for. Settings, recipes and prices move none; what they may not change is held by
 * test/app/standsStill.test.ts.
 */
import { Refused } from "#core/refused";
import { sql } from "drizzle-orm";
import fc from "fast-check";
import { LISTS_IN } from "./dice/listsIn.ts";
import { MAKING } from "./dice/making.ts";
import { SHELF } from "./dice/shelf.ts";
import { doing, itself, type Again, type World } from "./dice/world.ts";
import { reverseAct } from "#db/acts/reverse";
import { saveMaterial } from "#db/shelf/keepMaterial";
import { receive } from "#db/shelf/receipts/receive";
import { euro } from "./fresh.ts";
import { aWorkshop, DAY, idIn } from "./workshop.ts";

const THROWS = { ...SHELF, ...MAKING, ...LISTS_IN };
export type Kind = keyof typeof THROWS;
export const KINDS = Object.keys(THROWS) as Kind[];
/** Done more often, since much else rests on them. */
const OFTEN: readonly Kind[] = ["correct", "fill", "strain", "make"];

export interface Dice {
  do: Kind;
  a: number;
  b: number;
}
/** Which act, and two dice that choose what it is done to and how much. */
export const dice = { do: fc.constantFrom(...KINDS, ...OFTEN), a: fc.nat(997), b: fc.integer({ min: 1, max: 1000 }) };

/** Chooses an act by its dice; null when there is nothing to do it to. */
export const choose = async (w: World, { do: what, a, b }: Dice): Promise<Again | null> => THROWS[what](w.db, a, b);

/** A workshop with what all the acts need: oil and wax, tins and boxes, a herb and a scent. */
export async function aWorldForDice(): Promise<World & { drop: () => Promise<void> }> {
  const w = await aWorkshop();
  const herb = idIn(await saveMaterial(w.db, { name: "Herb", kind: "herb", densities: {} }, doing));
  const scent = idIn(await saveMaterial(w.db, { name: "Scent", kind: "essentialOil", densities: {} }, doing));
  for (const [materialId, qty] of [
    [scent, 10_000],
    [herb, 200_000],
    [w.ids.oil, 900_000],
  ] as const)
    await receive(
      w.db,
      {
        supplier: "Mill",
        day: DAY,
        postage: euro(0),
        lines: [{ materialId, supplierLot: "", packs: 1, packSize: "1", qty, price: euro(4), bestBefore: null }],
      },
      doing,
    );
  return { ...w, herb, lots: itself, jars: itself, receipts: itself };
}

/** A throw, and now and then an act that is taken back after it. */
export const step = fc.record({ ...dice, back: fc.option(fc.nat(30), { freq: 3 }) });

/** Does what the dice say, and takes back what they say; what can't be done isn't. @returns whatever was refused, in words */
export async function play(w: World, steps: readonly (Dice & { back: number | null })[]): Promise<string[]> {
  const refusals: string[] = [];
  for (const { back, ...thrown } of steps)
    try {
      await (
        await choose(w, thrown)
      )?.(w);
      if (back === null) continue;
      const { rows } = await w.db.execute(sql`select id from standing_act order by id desc offset ${back} limit 1`);
      if (rows[0]) await reverseAct(w.db, Number(rows[0].id), { day: DAY });
    } catch (e) {
      if (!(e instanceof Refused)) throw e;
      refusals.push(e.message);
    }
  return refusals;
}
