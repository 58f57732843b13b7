/**
 * The seed of every property test, so that a run can be repeated: the same one unless ZELBIN_SEED says another. `npm test` prints it, and
 * draws a new one for ZELBIN_SEED=random.
 */
import fc from "fast-check";

fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: Number(process.env.ZELBIN_SEED ?? 1) });
