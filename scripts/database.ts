/** The workshops on a database server, with the invented one that fills the demo. */
import { today } from "#db/clock";
import { openWorkshops, type Workshops } from "#db/workshops";
import type { Logger } from "drizzle-orm/logger";

/** Opens the workshops on a server. @param url the demo's database */
export const openHouse = (url: string, logger?: Logger): Promise<Workshops> =>
  openWorkshops(url, {
    logger,
    loadDemo: async (db) => {
      console.log("Loading the demo workshop …");
      const { loadDemo } = await import("#demo/load");
      await loadDemo(db, today());
    },
  });
