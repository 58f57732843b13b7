/** Two kinds of acts at once, in many windows, over the same records: all that could succeed does, sums hold, and nobody waits for nothing. */
import { ACT_KINDS, type ActKind } from "#core/act/kinds";
import { openDb, type OpenDb } from "#db/client";
import { ledgerFaults } from "#db/ledger/faults";
import { Refused } from "#core/refused";
import fc from "fast-check";
import { CONTESTANTS } from "./contestants.ts";
import { longest, type Found, type InDatabase, type Turns } from "./found.ts";
import { aWorld, type World } from "./world.ts";

/** Connections, as of many windows: four pools of ten. */
const POOLS = 4;
/** As long as anybody should wait for what others do. */
const LONGEST_MS = 1000;

type Pair = readonly [ActKind, ActKind];
const PAIRS: readonly Pair[] = ACT_KINDS.flatMap((a, i) => ACT_KINDS.slice(i).map((b) => [a, b] as const));
/** Those that deadlocked once. */
const HARDEST: readonly Pair[] = [
  ["closeMarket", "closeMarket"],
  ["blend", "pour"],
  ["blend", "strain"],
];

const shuffled = <T>(all: readonly T[], seed: number): T[] =>
  fc.sample(fc.shuffledSubarray([...all], { minLength: all.length, maxLength: all.length }), { seed, numRuns: 1 })[0]!;

/** Every pair once for each of `times` but the first; briefly every kind once, and the hardest always. */
const roundsOf = ({ seed, times }: Turns): Pair[] => {
  if (times > 1) return Array.from({ length: times - 1 }, (_, t) => shuffled(PAIRS, seed + t)).flat();
  const kinds = shuffled(ACT_KINDS, seed);
  return [...HARDEST, ...kinds.flatMap((kind, i) => (i % 2 ? [[kinds[i - 1]!, kind] as const] : []))];
};

interface Outcome {
  kind: ActKind;
  ms: number;
  refused: string | null;
  broke: string | null;
}

async function contest(pools: readonly OpenDb[], w: World, pair: Pair, windows: number): Promise<Outcome[]> {
  const ready = [];
  for (let i = 0; i < windows; i++) {
    const kind = pair[i % 2]!;
    ready.push({ kind, act: await CONTESTANTS[kind].ready(pools[0]!, w) });
  }
  return Promise.all(
    ready.map(async ({ kind, act }, i): Promise<Outcome> => {
      const began = performance.now();
      const ended = (refused: string | null, broke: string | null) => ({ kind, ms: performance.now() - began, refused, broke });
      try {
        await act(pools[i % POOLS]!);
        return ended(null, null);
      } catch (e) {
        return e instanceof Refused ? ended(e.problems.map((p) => p.say).join(" "), null) : ended(null, String(e));
      }
    }),
  );
}

/** What went wrong with one of a contest, in words. */
function faultOf({ kind, refused, broke }: Outcome): string | null {
  if (broke !== null) return `${kind} broke: ${broke}`;
  if (refused !== null && (!CONTESTANTS[kind].maybe || /Other windows are at work/.test(refused))) return `${kind} was refused: ${refused}`;
  return null;
}

/** Contests after which there is another workshop: one that thousands of acts of one day went through is like none there is. */
const IN_A_WORLD = 120;

/** @param inDatabase does some work in an empty, migrated database */
export async function rivals(inDatabase: InDatabase, turns: Turns): Promise<Found> {
  const rounds = roundsOf(turns);
  const windows = fc.sample(fc.constantFrom(2, 4, 8, 32), { seed: turns.seed, numRuns: rounds.length });
  const faults: string[] = [];
  const byPair: Record<string, string> = {};
  const all: Outcome[] = [];
  for (let from = 0; from < rounds.length; from += IN_A_WORLD)
    await inDatabase(async (url) => {
      const pools = Array.from({ length: POOLS }, () => openDb(url));
      const w = await aWorld(pools[0]!);
      for (const [n, pair] of rounds.slice(from, from + IN_A_WORLD).entries()) {
        const many = turns.times === 1 ? 8 : windows[from + n]!;
        const outcomes = await contest(pools, w, pair, many);
        all.push(...outcomes);
        const refused = outcomes.filter((o) => o.refused !== null).length;
        byPair[`${pair.join(" against ")}, ${many} windows`] = `${refused} refused, at most ${longest(outcomes.map((o) => o.ms))} ms`;
        faults.push(...outcomes.flatMap((o) => faultOf(o) ?? []).map((f) => `${pair.join(" against ")}, ${many} windows: ${f}`));
      }
      faults.push(...(await ledgerFaults(pools[0]!)));
      await Promise.all(pools.map((p) => p.close()));
    });
  return {
    figures: {
      "contests of pairs": rounds.length,
      acts: all.length,
      "refused by right": all.filter((o) => o.refused !== null && CONTESTANTS[o.kind].maybe).length,
      "longest wait, ms": longest(all.map((o) => o.ms)),
      "waits over a second": all.filter((o) => o.ms > LONGEST_MS).length,
      // Briefly, the sums are enough.
      ...(turns.times > 1 && byPair),
    },
    faults,
  };
}
