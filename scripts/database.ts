/** The workshops on a database server, with the invented one that fills the demo; and the private ones of this machine. */
import { backUpBefore } from "#db/backups/backups";
import { openDb, type OpenDb } from "#db/client";
import { today } from "#db/clock";
import { databaseIn } from "#db/databases";
import { openWorkshops, type OwnPlace, type Workshops } from "#db/workshops/workshops";
import type { Logger } from "drizzle-orm/logger";
import { inRunning, startCluster, type Cluster } from "./cluster/cluster.ts";
import { hold } from "./cluster/hold.ts";
import { isBegun } from "./cluster/make.ts";
import { moveBooks } from "./cluster/moveBooks.ts";
import { backupsHome, booksCluster, booksFolder, DEMO } from "./places.ts";

/**
 * Opens the workshops on a server.
 * @param url the demo's database
 * @param own where the maker's own is, unless beside the demo's
 * @param home where it is remembered where backups go: one is made before one's own is brought up to date
 */
export const openHouse = (
  url: string,
  { logger, own, home }: { logger?: Logger; own?: OwnPlace; home?: string } = {},
): Promise<Workshops> =>
  openWorkshops(url, {
    logger,
    own,
    ...(home !== undefined && { beforeSteps: (ownUrl: string) => backUpBefore(home, ownUrl) }),
    loadDemo: async (db) => {
      console.log("Loading the demo workshop …");
      const { loadDemo } = await import("#demo/load");
      await loadDemo(db, today());
    },
  });

export interface House {
  house: Workshops;
  /** Closes the workshops and stops what was started for them. */
  close: () => Promise<void>;
}

/** Opens what closes in the end in any case; where opening fails, what was opened before is closed. */
async function closing(open: (onClose: (step: () => unknown) => void) => Promise<Workshops>): Promise<House> {
  const steps: (() => unknown)[] = [];
  const close = async (): Promise<void> => {
    for (const step of steps.splice(0).reverse()) await step();
  };
  try {
    const house = await open((step) => steps.push(step));
    steps.push(house.close);
    return { house, close };
  } catch (e) {
    await close();
    throw e;
  }
}

/** The database of one's own, on its own server. */
const OWN = "zelbin";

/** No workshop of one's own: for what works on the demo alone. */
const NO_OWN: OwnPlace = {
  find: () => Promise.resolve(null),
  make: () => Promise.reject(new Error("Only the demo is open here.")),
  address: () => Promise.reject(new Error("Only the demo is open here.")),
  where: { what: "", name: "" },
};

interface Which {
  /** Without the maker's own. */
  demoAlone?: boolean;
}

/** The demo of this project and the maker's own of this user, each in its own cluster. @throws InUse when another Zelbin has either */
export const openPrivateHouse = ({ demoAlone = false }: Which = {}): Promise<House> =>
  closing(async (onClose) => {
    const start = async (dir: string): Promise<Cluster> => {
      const cluster = await startCluster(dir);
      onClose(cluster.stop);
      cluster.watch();
      return cluster;
    };
    const demo = await start(DEMO);
    if (demoAlone) return openHouse(await demo.database(), { own: NO_OWN });
    const at = booksCluster();
    let books: Promise<Cluster> | null = null;
    const openBooks = (): Promise<Cluster> =>
      (books ??= start(at).catch((e: unknown) => {
        books = null;
        throw e;
      }));
    // Before a demo is loaded that nobody could open then.
    if (isBegun(at)) await openBooks();
    const moved = await moveBooks(demo, DEMO, openBooks, at);
    if (moved) console.log(moved);
    const make = async (): Promise<string> => (await openBooks()).database(OWN);
    const own: OwnPlace = {
      // A server that was started for books that never arrived holds none.
      find: async () => (isBegun(at) && (await (await openBooks()).has(OWN)) ? (await openBooks()).at(OWN) : null),
      make,
      address: async () => (await openBooks()).at(OWN),
      where: { what: "the folder", name: booksFolder() },
    };
    return openHouse(await demo.database(), { own, home: backupsHome() });
  });

/** One's own books as another Zelbin has them open, to be read only; null where none has. */
export function runningBooks(): { db: OpenDb; url: string } | null {
  const at = booksCluster();
  const url = isBegun(at) ? inRunning(at, OWN) : null;
  return url === null ? null : { db: openDb(url), url };
}

/**
 * The workshops on a server of the user's own. Several Zelbins may have them open, but nobody resets what another has open.
 * @param alone nobody else may have them open
 */
export const openHouseAt = (url: string, { demoAlone = false, alone = false }: Which & { alone?: boolean } = {}): Promise<House> =>
  closing(async (onClose) => {
    const server = new URL(url);
    server.pathname = "/postgres";
    const name = databaseIn(url);
    const held = await hold({ server: server.href, name, say: `The database ${name}`, shared: !alone });
    onClose(held.release);
    return openHouse(url, demoAlone ? { own: NO_OWN } : { home: backupsHome(url) });
  });
