/**
 * `npm run backup`: one backup of one's own books, checked, whether Zelbin is open or not. `npm run restore -- <file>`: the books of an archive in the
 * place of one's own, after asking; what was there is kept.
 */
import { rowsByKind, type Manifest } from "#core/archive/manifest";
import { booksNow } from "#db/archive/booksNow";
import { openBackups, type Backups } from "#db/backups/backups";
import { createReadStream } from "node:fs";
import { resolve } from "node:path";
import { createInterface } from "node:readline/promises";
import { InUse } from "./cluster/hold.ts";
import { openHouseAt, openPrivateHouse, runningBooks, type House } from "./database.ts";
import { backupsHome } from "./places.ts";

const { DATABASE_URL } = process.env;
const home = backupsHome(DATABASE_URL);

/** Waits for what was begun, and says what it came to. @returns whether it went well */
async function cameTo(backups: Backups): Promise<boolean> {
  await backups.settled();
  const { ended, folder } = await backups.state();
  if (!ended) return false;
  if (!ended.ok) console.error(ended.say);
  else if (ended.what === "restore")
    console.log(
      `Your own workshop is what was in the archive.${ended.kept === null ? "" : ` What was there before is kept as the database ${ended.kept}; to go back to it, open Backups in Zelbin.`}`,
    );
  else if (ended.what === "backup")
    console.log(
      ended.name === null
        ? `Nothing has changed since the newest backup in ${folder}.`
        : `Backed up and checked: ${ended.name} in ${folder}.`,
    );
  return ended.ok;
}

const open = (): Promise<House> => (DATABASE_URL ? openHouseAt(DATABASE_URL) : openPrivateHouse());

async function backUp(): Promise<boolean> {
  try {
    const { house, close } = await open();
    try {
      const backups = await openBackups({ home, workshops: house, byThemselves: false });
      backups.begin();
      return await cameTo(backups);
    } finally {
      await close();
    }
  } catch (e) {
    const running = e instanceof InUse ? runningBooks() : null;
    if (!running) throw e;
    const no = (): Promise<never> => Promise.reject(new Error("Zelbin has these books open."));
    const workshops = {
      of: () => Promise.resolve(running.db),
      address: () => Promise.resolve(running.url),
      putInPlace: no,
      look: no,
      goBack: no,
    };
    try {
      const backups = await openBackups({ home, workshops, byThemselves: false });
      backups.begin();
      return await cameTo(backups);
    } finally {
      await running.db.close();
    }
  }
}

/** What an archive holds, in a line. */
const sayOf = (m: Manifest): string =>
  `“${m.workshop}”, as it was on ${m.asOf.slice(0, 10)}, with ${rowsByKind(m).get("lot") ?? 0} lots and ${rowsByKind(m).get("act") ?? 0} acts; the newest: ${m.newest[0]?.what ?? "none"}`;

async function restore(file: string, sure: boolean): Promise<boolean> {
  const { house, close } = await open();
  try {
    const backups = await openBackups({ home, workshops: house, byThemselves: false });
    const { id, manifest } = await backups.takeIn(createReadStream(resolve(process.env.INIT_CWD ?? ".", file)));
    console.log(`The archive is ${sayOf(manifest)}.`);
    const own = await house.of("own");
    if (own) {
      const { rows, newest } = await booksNow(own);
      console.log(
        `Your books have ${rows.get("lot") ?? 0} lots and ${rows.get("act") ?? 0} acts; the newest: ${newest[0]?.what ?? "none"}. They will be kept.`,
      );
    }
    if (!sure && !(await asked())) {
      console.log("Nothing was changed.");
      return true;
    }
    await backups.restore({ id });
    return await cameTo(backups);
  } finally {
    await close();
  }
}

async function asked(): Promise<boolean> {
  if (!process.stdin.isTTY) throw new Error("Run this in a terminal, or with --yes.");
  const ask = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await ask.question("Put the archive in their place? Type yes to go on: ");
  ask.close();
  return answer.trim().toLowerCase() === "yes";
}

const [what, ...rest] = process.argv.slice(2);
const file = rest.find((a) => !a.startsWith("--"));
try {
  if (what === "restore" && file === undefined) throw new Error("Name the archive: npm run restore -- path/to/the/archive.zip");
  process.exitCode = (await (what === "restore" ? restore(file!, rest.includes("--yes")) : backUp())) ? 0 : 1;
} catch (e) {
  console.error(e instanceof Error ? e.message : e);
  process.exitCode = 1;
}
