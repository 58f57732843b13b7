/** The simulated scale, a separate program: `node --import tsx devices/scale.ts [port]`. What it says and hears: core/device/lines.ts. */
import { writeWeight } from "#core/device/lines";
import { hand, MOST, newPan, pass, press, shows, STEP } from "./scale/pan.ts";
import { run } from "./speak.ts";

const pan = newPan();
await run({
  hello: `hello scale ${STEP / 1000} g ${MOST / 1000} g simulated`,
  pass: (ms) => pass(pan, ms, Math.random),
  says: () => writeWeight(shows(pan), 1),
  told: (line) => (line.startsWith("hand ") ? hand(pan, line.slice("hand ".length)) : press(pan, line)),
});
