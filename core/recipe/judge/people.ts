/**
 * Whom it could hurt: what a material carries, looked through, held against where the product is used and who uses it. From memory and common
 * practice: it warns and never clears.
 */
import { CAUTIONS, type CautionId } from "../../material/cautions.ts";
import { sayShare } from "../../measure/write.ts";
import type { ForWhom } from "../../scent/limits.ts";
import { addDays, sayFullDay } from "../../when.ts";
import type { Judge, Judged, JudgedLine, Judgement } from "./judgement.ts";

interface Against {
  /** "not for children". */
  say: string;
  cautions: readonly CautionId[];
  gravity: 2 | 3;
}

const SMALL: readonly CautionId[] = ["smallChildren", "restricted", "alkaloid", "salicylate"];
const HARSH: readonly CautionId[] = ["sensitiser", "irritant", "ages"];

/** What isn't for whom. */
const FOR: Readonly<Record<Exclude<ForWhom, "anyone">, readonly Against[]>> = {
  pregnancy: [{ say: "not in pregnancy", cautions: ["pregnancy", "restricted", "alkaloid", "salicylate"], gravity: 3 }],
  infants: [{ say: "not for infants", cautions: [...SMALL, ...HARSH], gravity: 3 }],
  children: [
    { say: "not for children", cautions: SMALL, gravity: 3 },
    { say: "hardly for children", cautions: HARSH, gravity: 2 },
  ],
  sensitive: [{ say: "hardly for sensitive skin", cautions: [...HARSH, "salicylate"], gravity: 2 }],
};
const ON_LIPS: Against = { say: "not for lips", cautions: ["notLips", "alkaloid", "restricted"], gravity: 3 };
/** A face has lips. */
const ON_FACE: Against = { ...ON_LIPS, say: "not for lips: keep it off them", gravity: 2 };

/** Who and where a recipe is for, with the key an answer is saved under. */
function against(of: Judged): [key: string, against: Against][] {
  const lips = of.type === "lipBalm" ? ON_LIPS : of.usedOn === "lips" ? ON_FACE : null;
  return [
    ...(lips ? [["lips", lips] as [string, Against]] : []),
    ...(of.forWhom === "anyone" ? [] : FOR[of.forWhom].map((a): [string, Against] => [of.forWhom, a])),
  ];
}

/** Each material once, whatever the number of its lines. */
const once = (lines: readonly JudgedLine[]): JudgedLine[] => lines.filter((l, i) => lines.findIndex((o) => o.of === l.of) === i);

function forNobodyOf(of: Judged): Judgement[] {
  const found: Judgement[] = [];
  for (const l of once(of.lines)) {
    const said = new Set<CautionId>();
    for (const [key, { say, cautions, gravity }] of against(of)) {
      const here = cautions.filter((c) => l.cautions.includes(c) && !said.has(c));
      if (here.length === 0) continue;
      here.forEach((c) => said.add(c));
      found.push({
        key: `for ${key} ${l.name}`,
        gravity,
        say: `${l.name}: ${say}.`,
        why: `${here.map((c) => CAUTIONS[c].say).join(" ")} From memory and common practice: go by local rules, and ask whoever is licensed to say.`,
        figure: sayShare(l.share),
        mend: null,
      });
    }
    // Sold to anyone, it needs a paper that says it is free of them, or isn't sold.
    if (l.cautions.includes("alkaloid") && !said.has("alkaloid"))
      found.push({
        key: `alkaloid ${l.name}`,
        gravity: l.kind === "oil" ? 1 : 2,
        say: `${l.name} may carry alkaloids that harm the liver.`,
        why: `${CAUTIONS.alkaloid.say} Ask for a paper that says it is free of them, and look at the rules of every place it is sold in.`,
        figure: sayShare(l.share),
        mend: null,
      });
  }
  // Of two sides of the same person the worse one is enough.
  return found.filter((j, i) => found.findIndex((o) => o.key === j.key) === i);
}

/** So near its end, what sensitises with age is old. Common practice, no source. */
const OLD_DAYS = 60;

const old = (of: Judged): Judgement[] =>
  of.lines
    .filter((l) => l.cautions.includes("ages"))
    .flatMap((l) =>
      l.lots.filter((lot) => lot.bestBefore !== null && lot.bestBefore < addDays(of.today, OLD_DAYS)).map((lot) => ({ l, lot })),
    )
    .map(({ l, lot }) => ({
      key: `old ${l.name}, ${lot.number}`,
      gravity: 2,
      say: `${l.name}, lot ${lot.number}, is near its end.`,
      why: `It is best before ${sayFullDay(lot.bestBefore!)}. ${CAUTIONS.ages.say}`,
      figure: sayShare(l.share),
      mend: null,
    }));

export const judgePeople: Judge = (of) => [...forNobodyOf(of), ...old(of)];
