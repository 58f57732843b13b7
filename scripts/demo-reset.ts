/** `npm run demo:reset`: throws away what was done in the demo workshop and loads it again, after asking. One's own is never touched. */
import { join } from "node:path";
import { createInterface } from "node:readline/promises";
import { claim } from "./claim.ts";
import { openHouse } from "./database.ts";
import { DATA, startCluster } from "./postgres.ts";

const yes = process.argv.includes("--yes");
if (!yes) {
  if (!process.stdin.isTTY) {
    console.error("This throws away everything that was entered in the demo workshop. Run it in a terminal, or with --yes.");
    process.exit(1);
  }
  const ask = createInterface({ input: process.stdin, output: process.stdout });
  const where = process.env.DATABASE_URL ? ` in the database ${new URL(process.env.DATABASE_URL).pathname.slice(1)} of DATABASE_URL` : "";
  const answer = await ask.question(
    `This throws away everything that was entered in the demo workshop${where}; your own isn't touched. Type yes to go on: `,
  );
  ask.close();
  if (answer.trim().toLowerCase() !== "yes") {
    console.log("Nothing was changed.");
    process.exit(0);
  }
}

let release = (): void => {};
try {
  const own = process.env.DATABASE_URL ? null : ((release = claim()), await startCluster(join(DATA, "cluster")));
  const url = process.env.DATABASE_URL ?? own!.url;
  const house = await openHouse(url);
  await house.resetDemo();
  await house.close();
  own?.stop();
  console.log("The demo workshop is as it was on the first day.");
} catch (e) {
  console.error(e instanceof Error ? e.message : e);
  process.exitCode = 1;
} finally {
  release();
}
