/** `npm run demo:reset`: throws away what was done in the demo workshop and loads it again, after asking. One's own is never touched. */
import { createInterface } from "node:readline/promises";
import { openHouseAt, openPrivateHouse } from "./database.ts";

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

try {
  const { DATABASE_URL } = process.env;
  const { house, close } = DATABASE_URL
    ? await openHouseAt(DATABASE_URL, { demoAlone: true, alone: true })
    : await openPrivateHouse({ demoAlone: true });
  try {
    await house.resetDemo();
  } finally {
    await close();
  }
  console.log("The demo workshop is as it was on the first day.");
} catch (e) {
  console.error(e instanceof Error ? e.message : e);
  process.exitCode = 1;
}
