/**
 * `npm run bench`: every page in the demo and in a workshop of five years, a key on a recipe's sheet, a thousand recipes costed and pots filled, each beside
 * what it can be compared with, in one run. Prints ratios; nothing here can fail. The large workshop is left for the next run.
 */
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { readFileSync } from "node:fs";
import { benchArchive } from "./bench/archive.ts";
import { benchCosting } from "./bench/costing.ts";
import { benchFills } from "./bench/fills.ts";
import { benchKeys } from "./bench/keys.ts";
import { benchStart } from "./bench/start.ts";
import { benchPresses } from "./bench/presses.ts";
import { benchMemory, benchStations, bothSizes } from "./bench/stations.ts";
import { buildIfStale } from "./building/build.ts";
import { startCluster } from "./cluster/cluster.ts";
import { DATA } from "./places.ts";

buildIfStale();
const cluster = await startCluster(join(DATA, "bench"));
try {
  const [demo, large] = await bothSizes(await cluster.database());
  await benchStations(demo, large);
  const html = await demo.fetchPage("/");
  const scripts = [...new Set(html.match(/\/assets\/(?!manifest)[\w.-]+\.js/g))];
  const size = scripts.reduce((a, s) => a + gzipSync(readFileSync(join("build/client", s))).length, 0);
  console.log(`\nFirst page: ${scripts.length} scripts, ${(size / 1000).toFixed(1)} kB compressed (wanted: at most 150).`);
  await benchKeys([
    { name: "demo", site: demo.url, materials: ["Castor oil", "Beeswax, yellow", "Shea butter, unrefined", "Coconut oil", "Jojoba oil"] },
    { name: "five years", site: large.url, materials: ["Stuff 001", "Stuff 002", "Stuff 003", "Stuff 004", "Stuff 005"] },
  ]);
  await benchPresses(large.url);
  benchCosting();
  await benchFills();
  await benchMemory(large);
  await benchArchive(demo, large);
  await demo.close();
  await large.close();
  await benchStart();
} finally {
  cluster.stop();
}
