/** The simulated thermometer, a separate program: `node --import tsx devices/thermometer.ts [port]`. What it says: core/device/lines.ts. */
import { writeHeat } from "#core/device/lines";
import { run } from "./speak.ts";
import { hand, newPot, pass, shows } from "./thermometer/pot.ts";

const pot = newPot();
await run({
  hello: "hello thermometer simulated",
  pass: (ms) => pass(pot, ms),
  says: () => writeHeat(shows(pot, Math.random)),
  told: (line) => line.startsWith("hand ") && hand(pot, line.slice("hand ".length)),
});
