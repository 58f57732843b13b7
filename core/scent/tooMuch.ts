/** What is too much of a blend in a pot, in words: of an oil, for skin in the sun, for the place and the person. It warns and never clears. */
import type { Mg } from "../measure/exact.ts";
import { sayShare } from "../measure/write.ts";
import { wordList } from "../words.ts";
import { mostOn, scentOf, type ScentLine } from "./dilution.ts";
import { FOR_WHOM, sunLimitOf, USED_ON, type ForWhom, type UsedOn } from "./limits.ts";

const DISPUTE = "Its ceiling is in dispute: others name up to ten times as much. ";
const PAPERS = "A figure from memory: the supplier's certificate for the lot, and local rules, come first.";

export interface TooMuch {
  /** The same for the same judgement on the same thing. */
  key: string;
  /** 3 can hurt somebody, 2 is much. */
  gravity: 2 | 3;
  say: string;
  why: string;
  figure: string;
  by: "oil" | "sun" | "use";
  /** The oils it is about, by name. */
  of: string[];
  /** The most they may be of the whole; of the sun, of what is allowed. */
  most: number;
}

/**
 * Everything of a blend that is too much, worst first.
 * @example tooMuchScent([{ name: "Clove bud", libraryKey: "eo-clove-bud", weight: mg(1000), lots: [], short: false }], mg(100_000), "hands", "anyone")[0].key // "scent.ceiling Clove bud"
 */
export function tooMuchScent(lines: readonly ScentLine[], total: Mg, on: UsedOn, whom: ForWhom): TooMuch[] {
  const scent = scentOf(lines, total, on, whom);
  if (!scent) return [];
  const found: TooMuch[] = [];
  for (const { name, share, ceiling, disputed } of scent.oils) {
    if (ceiling === null || share <= ceiling.share) continue;
    found.push({
      // Known of the usual ceiling, it isn't known of what a lot's paper says.
      key: `scent.ceiling ${name}${ceiling.lot === null ? "" : `, ${ceiling.lot}`}`,
      gravity: 3,
      say:
        ceiling.lot === null
          ? `${name}: ${sayShare(share)} is over its ceiling of ${sayShare(ceiling.share)}.`
          : `${name}: ${sayShare(share)} is over the ${sayShare(ceiling.share)} that lot ${ceiling.lot} may be.`,
      why: `More of it can irritate or sensitise skin. ${ceiling.lot === null ? `${disputed ? DISPUTE : ""}${PAPERS}` : "Its supplier’s paper says so, as you wrote it down with the lot; local rules come first."}`,
      figure: sayShare(share),
      by: "oil",
      of: [name],
      most: ceiling.share,
    });
  }
  if (scent.sun > 1) {
    const citrus = lines.filter((l) => sunLimitOf(l.libraryKey) !== null).map((l) => l.name);
    found.push({
      key: "scent.sun",
      gravity: 3,
      say: `Skin left in the sun can burn: ${wordList(citrus)} ${citrus.length > 1 ? "add up to" : "is"} ${sayShare(scent.sun)} of what is allowed.`,
      why: `Each expressed citrus oil has its own limit on skin in the sun, and their shares of it add up. ${PAPERS}`,
      figure: sayShare(scent.sun),
      by: "sun",
      of: citrus,
      most: 1,
    });
  }
  const most = mostOn(on, whom);
  if (scent.share > most) {
    const { say } = FOR_WHOM[whom];
    found.push({
      key: "scent.use",
      gravity: whom === "anyone" ? 2 : 3,
      say:
        most === 0
          ? `${sayShare(scent.share)} scent: there should be none.`
          : `${sayShare(scent.share)} scent is much: ${USED_ON[on].label.toLowerCase()} take ${sayShare(most)} at most.`,
      why: `Common practice${say && `, and ${say}`}.`,
      figure: sayShare(scent.share),
      by: "use",
      of: lines.map((l) => l.name),
      most,
    });
  }
  return found;
}
