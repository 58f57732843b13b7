/** `npm run torture`: hard knocks for as long as is wanted, each time from another seed unless one is given. */
import { randomInt } from "node:crypto";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { buildIfStale } from "./building/build.ts";
import { startCluster } from "./cluster/cluster.ts";
import { DATA } from "./places.ts";
import { torture } from "./torture/torture.ts";

const { values } = parseArgs({
  options: { seed: { type: "string" }, times: { type: "string", default: "4" }, minutes: { type: "string", default: "0" } },
});
const until = Date.now() + Number(values.minutes) * 60_000;
buildIfStale();
const cluster = await startCluster(join(DATA, `torture-rivals-${process.pid}`), true);
let broke = 0;
try {
  let seed = values.seed === undefined ? randomInt(1, 2 ** 31) : Number(values.seed);
  do {
    broke += (await torture(await cluster.database(), { seed, times: Number(values.times) })).broke;
    seed++;
  } while (Date.now() < until);
} finally {
  cluster.stop();
}
process.exit(broke === 0 ? 0 : 1);
