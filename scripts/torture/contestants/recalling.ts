/** Lots called back, in contests: what is held is of what nothing else is made of, so that nobody else is left without. */
import type { Db } from "#db/client";
import { beginRecall, closeRecall, tellRecall } from "#db/lots/recall";
import { readRecall } from "#db/lots/recalls";
import { closeMarketDay } from "#db/markets/markets";
import { DAY } from "#test/db/jar";
import { idIn, now, type Contestant, type World } from "../world.ts";
import { dayOf } from "./selling.ts";
import { aSpareLot } from "./stock.ts";

const begun = (db: Db, lotId: number, rehearsal: boolean) =>
  beginRecall(db, { lotIds: [lotId], reason: "smells odd", toDo: "Put it aside.", rehearsal }, now());
const ofSpare = async (db: Db, w: World): Promise<number> => idIn(await begun(db, await aSpareLot(db, w), false));

export const RECALLING = {
  recall: {
    ready: async (db, w) => {
      const lotId = await aSpareLot(db, w);
      return (at) => begun(at, lotId, false);
    },
  },
  tellRecall: {
    ready: async (db, w) => {
      await closeMarketDay(db, dayOf(w, 1), now());
      const recallId = idIn(await begun(db, w.lots.made[0], true));
      const { reach } = (await readRecall(db, recallId))!;
      const was = { toldOn: null, back: 0, note: "" };
      return (at) => tellRecall(at, { recallId, contactId: reach.markets[0]!.contactId, was, toldOn: DAY, back: 0, note: "" }, now());
    },
  },
  closeRecall: {
    ready: async (db, w) => {
      const recallId = await ofSpare(db, w);
      return (at) => closeRecall(at, { recallId, free: true }, now());
    },
  },
} as const satisfies Record<string, Contestant>;
