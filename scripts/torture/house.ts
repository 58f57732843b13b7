/**
 * A server with its own cluster, in a separate process, to be killed: `house.ts FOLDER PORT`. Prints a line of JSON once it is open.
 * The cluster is as durable as the one of `npm start`, and is watched as there.
 */
import { openWorkshops } from "#db/workshops/workshops";
import { startCluster } from "../cluster/cluster.ts";
import { serve } from "../server/serve.ts";
import { aWorld } from "./world.ts";

const [folder, port] = process.argv.slice(2) as [string, string];
const cluster = await startCluster(folder);
cluster.watch();
const house = await openWorkshops(await cluster.database(), {
  loadDemo: async (db) => {
    await aWorld(db);
  },
});
const site = await serve(house, Number(port));
process.on("SIGTERM", () => {
  void (async () => {
    await site.close();
    await house.close();
    cluster.stop();
    process.exit(0);
  })();
});
// Last: the reader may kill this process at once.
console.log(JSON.stringify({ url: site.url, database: await cluster.database() }));
