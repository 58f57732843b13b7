/** How long a gentle heat still runs: by itself, since every screen asks it and the rest of a jar is asked by its own. */

/** Minutes left; below zero it is over. @param onAt,now milliseconds @example heatLeft(90, 0, 3_600_000) // 30 */
export const heatLeft = (heatMinutes: number, onAt: number, now: number): number => heatMinutes - Math.floor((now - onAt) / 60_000);
