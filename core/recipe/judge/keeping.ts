/** What it keeps: water in it, and what in it is the first to turn. */
import { sayShare } from "../../measure/write.ts";
import { isDry } from "../../material/dryness.ts";
import type { KindId } from "../../material/kinds.ts";
import { counted } from "../../words.ts";
import { keepingOf } from "../keeping.ts";
import { type Judge, type Judged, type JudgedLine, type Judgement } from "./judgement.ts";

/** What carries water by its name, whatever kind it was put down as; an oil, a powder or a wax of the same plant doesn't. */
const WET =
  /\b(?:aloe|honey|hydro(?:sol|lat)e?s?|\w*water|juice|milk|tea|vinegar|witch hazel|tinctures?|infusion|decoction|purée|puree|fresh)\b/i;
/** A herb is dry unless its lot says otherwise: green tea is a leaf. */
const NOT_DRIED = /\b(?:fresh|wilted|moist|damp)\b/i;
/** Next to no water in it, but it doesn't mix with oil. */
const SEPARATES = /\bglycerine?\b/i;
const DRY = /\b(?:oil|powder|powdered|dried|dry|wax|butter|infused|flour|starch)\b/i;
const ALWAYS_DRY: ReadonlySet<KindId> = new Set<KindId>(["wax", "hardButter", "softButter", "essentialOil", "fragrance", "colour"]);

/**
 * Whether a material brings water into the pot.
 * @example bearsWater({ kind: "watery", name: "Honey" }) // true
 * @example bearsWater({ kind: "oil", name: "Aloe oil" }) // false
 */
export function bearsWater({ kind, name }: { kind: KindId; name: string }): boolean {
  if (SEPARATES.test(name) || ALWAYS_DRY.has(kind)) return false;
  if (kind === "herb") return NOT_DRIED.test(name);
  return kind === "watery" || (WET.test(name) && !DRY.test(name));
}

const separates = (of: Judged): Judgement[] =>
  of.lines
    .filter((l) => SEPARATES.test(l.name) && !ALWAYS_DRY.has(l.kind))
    .map((l) => ({
      key: `apart ${l.name}`,
      gravity: 2,
      say: `${l.name} doesn't mix with oil: it beads and sinks.`,
      why: "It brings next to no water, but it stays apart, and draws water from the air and from wet fingers. Leave it out; a waxy emulsifier holds a little of it.",
      figure: sayShare(l.share),
      mend: null,
    }));

/** Whether a line brings water: a herb by the lots it would be taken from as well. */
export const isWet = (l: Pick<JudgedLine, "kind" | "name" | "lots">): boolean =>
  bearsWater(l) || (l.kind === "herb" && l.lots.some(({ dryness }) => dryness !== undefined && !isDry(dryness)));

const water = (of: Judged): Judgement[] =>
  of.lines.filter(isWet).map((l) => ({
    key: `water ${l.name}`,
    gravity: 3,
    say: `${l.name} brings water: this no longer keeps without a preservative.`,
    why: "Mould and bacteria grow where there is water, and vitamin E doesn't stop them. It needs an emulsifier, a preservative made for it and testing, or to be used up within days from the fridge. Without them leave it out, or use it dried or as an oil.",
    figure: sayShare(l.share),
    mend: null,
  }));

/** Kept for less than this, it is hardly sold before it turns; common practice, no source. */
const SHORT_MONTHS = 6;

function turning(of: Judged): Judgement[] {
  const { keepsMonths } = of;
  const keeping = keepingOf(of.lines, of.today, keepsMonths);
  const [first] = keeping.weak;
  if (!first || keeping.months >= keepsMonths - 1) return [];
  const lot = first.number === null ? `${first.name}, to be bought new,` : `${first.name}, lot ${first.number},`;
  const months = counted(keeping.months, "month");
  return [
    {
      key: `keeps ${first.name}`,
      gravity: keeping.months < SHORT_MONTHS ? 2 : 1,
      say: `Made today it keeps ${months}, not ${keepsMonths}.`,
      why: `${lot} is the first to turn. Make only what is sold or used in half of that.`,
      figure: months,
      mend: null,
    },
  ];
}

export const judgeKeeping: Judge = (of) => [...water(of), ...separates(of), ...turning(of)];
