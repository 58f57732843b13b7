/**
 * The method of a recipe as steps: one to a line, each with the minutes of hands it takes, drafted from what is in the pot and then the
 * maker's own. Orders, warmths and times are common practice, no source; where the wax has melted and where it clouds is by the model of
 * firmness.
 */
import { firmness, mixOf } from "../firmness/model.ts";
import { meltsAt } from "../firmness/solids.ts";
import type { CautionId } from "../material/cautions.ts";
import type { KindId } from "../material/kinds.ts";
import { isScent } from "../scent/dilution.ts";
import { wordList } from "../words.ts";
import type { Judged, JudgedLine } from "./judge/judgement.ts";
import type { RecipeType } from "./types.ts";

export interface Step {
  text: string;
  /** Minutes of somebody's hands; null where nobody has said. Waiting isn't work. */
  minutes: number | null;
}

export interface DraftedStep extends Step {
  why: string;
}

/** How shea is stopped from going grainy: makers differ, and all three are in use. */
export const SHEA = {
  hold: "Hold it hot, then chill it fast",
  gentle: "Never overheat it: add it off the heat",
  raw: "Don't melt it: whip it from soft",
} as const;
export type Shea = keyof typeof SHEA;

const MINUTES = /\s*\((\d{1,3}) min\)$/;
/** Steps of a method as it is saved. @example readSteps("Melt the wax. (10 min)\nPour.")[0] // { text: "Melt the wax.", minutes: 10 } */
export const readSteps = (method: string): Step[] =>
  method
    .split("\n")
    .map((l) => l.trim())
    .filter((l) => l !== "")
    .map((l) => {
      const minutes = MINUTES.exec(l);
      return { text: l.replace(MINUTES, ""), minutes: minutes ? Number(minutes[1]) : null };
    });

/** @example writeSteps([{ text: "Melt the wax.", minutes: 10 }, { text: "Pour.", minutes: null }]) // "Melt the wax. (10 min)\nPour." */
export const writeSteps = (steps: readonly Step[]): string =>
  steps
    .filter((s) => s.text.trim() !== "")
    .map((s) => `${s.text.replace(/\s+/g, " ").trim()}${s.minutes === null ? "" : ` (${s.minutes} min)`}`)
    .join("\n");

const names = (lines: readonly JudgedLine[]): string => wordList([...new Set(lines.map((l) => l.name.split(",")[0]!))]);
const isShea = (l: JudgedLine): boolean => l.libraryKey?.startsWith("shea") === true || /\bshea\b/i.test(l.name);
/** Heat harms these, or drives them off. @example harmedByHeat({ kind: "antioxidant", cautions: [] }) // true */
export const harmedByHeat = (m: { kind: KindId; cautions: readonly CautionId[] }): boolean =>
  isScent(m) || m.kind === "antioxidant" || m.cautions.includes("delicate");

/** Where the whole pot runs clear, °C: the lowest whole degree at which nothing in it is set. @example clearAt({ lines: [{ weight: mg(10_000), sets: waxy }, { weight: mg(90_000), sets: liquid }], constants: TRADE }) // 45 */
export function clearAt(of: Pick<Judged, "lines" | "constants">): number {
  const mix = mixOf(of.lines);
  for (let c = 20; c < 95; c++) if (firmness(mix, c, of.constants) < 0.001) return c;
  return 95;
}

/** A step that waits is no work; one that is watched is. */
const step = (text: string, minutes: number | null, why: string): DraftedStep => ({ text, minutes, why });

/** Heat harms these: they go in below so many degrees, where the pot is liquid so cool. */
const ADD_BELOW = 50;
/** Above it scent flies off as it is stirred in. */
const SCENT_LIKES = 55;
/** How much above pouring what is stirred in last may be. */
const JUST_ABOVE = 2;
const BARS: readonly DraftedStep[] = [
  step(
    "Put the moulds in the fridge for 30 to 40 minutes, then press the bars out.",
    10,
    "Cold bars shrink from the mould and come out whole.",
  ),
  step("Leave the bars for 24 hours before they are wrapped.", null, "They go on setting, and sweat in paper before that."),
];
const SETS: Readonly<Record<RecipeType, readonly DraftedStep[]>> = {
  salve: [
    step(
      "Leave them where they are for some hours, or overnight, without moving them.",
      null,
      "A tin that is moved while it sets has a spoilt face.",
    ),
  ],
  balm: [
    step(
      "Leave them where they are for some hours, or overnight, without moving them.",
      null,
      "A tin that is moved while it sets has a spoilt face.",
    ),
  ],
  lipBalm: [
    step(
      "Leave the tubes standing for an hour; top up the dimples while they are still soft.",
      5,
      "Oils shrink a little as they set, most in a narrow tube.",
    ),
  ],
  lotionBar: BARS,
  massageBar: BARS,
  bodyButter: [],
};

/**
 * Steps drafted from what is in the pot.
 * @param shea which school, where there is shea in it
 */
export function draftMethod(of: Judged, shea: Shea): DraftedStep[] {
  const { lines, type } = of;
  const whipped = type === "bodyButter";
  const raw = whipped && shea === "raw";
  const solids = lines.filter((l) => meltsAt(l.sets) > 0).sort((a, b) => meltsAt(b.sets) - meltsAt(a.sets));
  const late = solids.filter((l) => isShea(l) && shea !== "hold");
  const hot = solids.filter((l) => !late.includes(l));
  const scents = lines.filter(isScent);
  const powders = lines.filter((l) => l.sets.as === "powder");
  const liquid = lines.filter((l) => l.sets.as !== "powder" && meltsAt(l.sets) === 0 && !isScent(l));
  const cool = liquid.filter(harmedByHeat);
  const oils = liquid.filter((l) => !cool.includes(l));
  const clear = clearAt(of);
  // A little above where it runs clear: with the hardest waxes that is hot.
  const pour = Math.max(45, Math.min(90, clear + 5));
  const steps: DraftedStep[] = [
    step(
      "Count the containers, wipe them out with alcohol and let them dry, away from any flame; dry every tool.",
      10,
      "A drop of water or a fingerprint of it is the classic way to lose a batch. Alcohol vapour burns.",
    ),
    step("Weigh everything, taring the vessel each time, the hardest first.", 10, "What is in the pot can't be weighed apart any more."),
  ];
  if (hot.length > 0 && !raw)
    steps.push(
      step(
        `Melt ${names(hot)} over hot water, in that order, until it is clear; never over a direct flame, never left alone.`,
        20,
        `Each melts into the one before, so that nothing is heated longer than it must be. Hot wax and oil burn and catch fire; keep water out of them.`,
      ),
    );
  if (oils.length > 0 && !raw)
    steps.push(
      step(
        `Stir in ${names(oils)}; if it seizes, warm it until it is clear again.`,
        5,
        "Cold oil sets hot wax for a moment. That melts again and harms nothing.",
      ),
    );
  if (lines.some(isShea) && shea === "hold" && !raw)
    steps.push(
      step(
        "Hold it hot for another 30 minutes, stirring now and then.",
        5,
        "The hard part of shea melts slowly: what is left of it grows into grains later.",
      ),
    );
  steps.push(...(raw ? [] : [step("Take it off the heat.", null, "What follows is spoilt by heat, or flies off.")]));
  if (late.length > 0 && !raw)
    steps.push(
      step(
        `Stir ${names(late)} into the hot oils until the last piece has gone.`,
        5,
        "Shea that is overheated, or cools slowly, goes grainy.",
      ),
    );
  if (powders.length > 0)
    steps.push(
      step(
        `Rub ${names(powders)} smooth with a little of the oil, then stir it in.`,
        5,
        "Powder doesn't dissolve: dry, it clumps and leaves a cast.",
      ),
    );
  if (whipped) {
    steps.push(
      raw
        ? step(
            `Let ${names(solids)} grow soft at room warmth, until a finger dents it.`,
            null,
            "Butter that was never melted can't go grainy.",
          )
        : step(
            "Chill it until it is set and a finger still dents it: 30 to 50 minutes in a freezer, about an hour in a fridge.",
            5,
            "Too hard, it has to be melted again; too soft, it holds no air.",
          ),
      step("Break it up at the slowest speed and scrape down eight to ten times.", 10, "What clings to the bowl stays in lumps."),
    );
  }
  if (whipped && raw && oils.length > 0)
    steps.push(step(`Run in ${names(oils)} little by little.`, 5, "All at once, it slips instead of taking up air."));
  // Last, at the warmth it is poured at or just above: cooler, it would set round the spoon.
  const warm = Math.max(ADD_BELOW, pour + JUST_ABOVE);
  const below = whipped ? "" : ` below ${warm} °C`;
  const hotForIt =
    !whipped && warm > SCENT_LIKES
      ? ` It has to be poured hotter than is good for it, at ${pour} °C: stir it in last, and pour at once.`
      : "";
  const test = step(
    `Test a drop on a frozen spoon: judge how firm it is${hotForIt ? "" : " and how it smells"}, and put it right now.`,
    5,
    "It is liquid still: wax or oil goes in easily.",
  );
  // Nothing comes between scent and pouring where the pot would set meanwhile.
  if (hotForIt) steps.push(test);
  if (cool.length > 0) steps.push(step(`Stir in ${names(cool)}${below}.`, 2, `Heat uses up what they are there for.${hotForIt}`));
  if (scents.length > 0)
    steps.push(
      step(
        `Stir in ${names(scents)}${below}, for two minutes by the clock; wear gloves.`,
        3,
        `Scent flashes off when it is too hot, and takes minutes to spread evenly.${hotForIt}`,
      ),
    );
  if (whipped)
    steps.push(
      step(
        "Whip until stiff peaks curl and don't fall; scrape out what clings to the tools.",
        15,
        "A third to a half of it hides on the whisk and the bowl.",
      ),
    );
  else
    steps.push(
      ...(hotForIt ? [] : [test]),
      step(
        `Wipe the jug's wet underside and pour at about ${pour} °C, before the jug's wall skins over; leave headspace.`,
        10,
        `By the model it runs clear at about ${clear} °C. Cooler it sets in the jug, hotter it shrinks and dimples.`,
      ),
    );
  if (lines.some(isShea) && shea === "hold" && !whipped)
    steps.push(step("Chill them fast, in the fridge, until they are set.", 2, "Cooled slowly, shea grows grains."));
  steps.push(
    ...SETS[type],
    step(
      "Cap them when they are cold, and write lot and date on each.",
      10,
      "Warm under a lid it sweats; an unlabelled jar is worthless a month later.",
    ),
    step("Wipe pots and tools while they are warm, then wash them.", 10, "Set wax blocks a drain."),
  );
  return steps;
}
