/** Lots of liquid and infused oils, by what they are of and their number. */
import { grams } from "#core/measure/write";
import { useFirst } from "#core/stock/lots";
import { sayDay } from "#core/when";
import { today } from "#db/clock";
import { oilLots } from "#db/jars/read";
import { keptSettings } from "#db/settings";
import { db } from "../db.server.ts";
import type { Name } from "../names/name.ts";
import type { OilLot } from "../names/named.ts";

/** Those of these names, in whatever case: "Olive oil · OO-3". */
export const oilLotsNamed = (names: readonly string[]): Promise<OilLot[]> => oilLots(db(), names);

/** All of them, to choose from, the one to use first in front. */
export async function oilLotNames(): Promise<Name[]> {
  const [lots, { dates }] = await Promise.all([oilLots(db()), keptSettings(db())]);
  return lots.sort(useFirst).map((l) => ({
    name: l.name,
    aside: grams(l.onHand),
    ...(l.bestBefore && { about: `best before ${sayDay(l.bestBefore, today(), dates === "mdy")}` }),
  }));
}
