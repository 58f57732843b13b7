/**
 * Five years' books as one archive, out and in again, beside the database's own dump and restore of the same; and what the heap came to on the way,
 * beside the demo's, which is a hundredth of it.
 */
import { mkdtempSync, rmSync, statSync, createWriteStream } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";
import { arriving } from "#db/archive/putIn";
import { openArchive } from "#db/archive/unzip";
import { writeArchive } from "#db/archive/write";
import type { OpenDb } from "#db/client";
import { workshop } from "#db/schema";
import { runClients } from "../cluster/program.ts";
import type { Site } from "./stations.ts";

/** Collecting what is garbage takes a while itself. */
const HEAP_EVERY_MS = 2000;
/** Wanted of five years, there and back. */
const WANTED_S = 120;
setFlagsFromString("--expose-gc");
const collect = runInNewContext("gc") as () => void;
const seconds = (ms: number): string => (ms / 1000).toFixed(1);

/** How long some work takes, and the most heap there was meanwhile, in MB. */
async function measured<T>(work: () => T | Promise<T>): Promise<{ took: number; heap: number; value: T }> {
  let heap = 0;
  const look = (): void => {
    collect();
    heap = Math.max(heap, process.memoryUsage().heapUsed / 1e6);
  };
  const timer = setInterval(look, HEAP_EVERY_MS);
  const start = performance.now();
  try {
    const value = await work();
    look();
    return { took: performance.now() - start, heap, value };
  } finally {
    clearInterval(timer);
  }
}

async function outAndIn(db: OpenDb, url: string, path: string) {
  await db.insert(workshop).values({ kind: "demo" }).onConflictDoNothing();
  const out = await measured(() => writeArchive(db, createWriteStream(path)));
  const through = await measured(() => openArchive(path));
  try {
    const loaded = await measured(() => arriving(url, through.value, "own", {}, () => Promise.resolve()));
    return { out, through, loaded };
  } finally {
    through.value.close();
  }
}

export async function benchArchive(demo: Site, large: Site): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "zelbin-bench-"));
  const file = (name: string): string => join(folder, name);
  try {
    const small = await outAndIn(demo.db, demo.database, file("demo.zip"));
    const five = await outAndIn(large.db, large.database, file("years.zip"));
    const dump = await measured(() => runClients("pg_dump", large.database, ["--format=custom", `--file=${file("years.dump")}`]));
    const total = five.out.took + five.through.took + five.loaded.took;
    console.log(`\nAn archive of five years, s (wanted: at most ${WANTED_S} there and back, and the heap as with the demo)\n`);
    console.log(
      `  written ${seconds(five.out.took)}, ${(five.out.took / dump.took).toFixed(1)} times the database's own dump; ${(statSync(file("years.zip")).size / 1e6).toFixed(1)} MB`,
    );
    console.log(
      `  read through ${seconds(five.through.took)}, loaded and checked ${seconds(five.loaded.took)}; there and back ${seconds(total)}`,
    );
    const most = (of: typeof five): string => Math.max(of.out.heap, of.through.heap, of.loaded.heap).toFixed(0);
    console.log(`  most heap ${most(five)} MB, with the demo ${most(small)}`);
  } finally {
    rmSync(folder, { recursive: true });
  }
}
