/** The house each worker has to itself: journeys go side by side and never meet. */

const mine = (houses: string | undefined): string => (houses ?? "").split(" ")[Number(process.env.TEST_PARALLEL_INDEX ?? 0)] ?? "";

/** Of them all, by which there are as many workers. */
export const HOUSES = (process.env.ZELBIN_URLS ?? "").split(" ").length;
export const HOUSE_URL = mine(process.env.ZELBIN_URLS);
export const HOUSE_DATABASE = mine(process.env.ZELBIN_DATABASES);
/** The simulated scale's program, to be unplugged. */
export const HOUSE_SCALE = Number(mine(process.env.ZELBIN_SCALES));
