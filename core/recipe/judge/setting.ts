/** How it will set: in the kitchen, on skin, and where it gets warm or cold. */
import { mendWith, type Wished } from "../../firmness/mend.ts";
import { firmness, mixOf, SAID_AT, type Mix } from "../../firmness/model.ts";
import { COLD, PLACES } from "../../firmness/words.ts";
import { cracksInCold, fitOf, measured, sayFit, wishOf, FIRMNESS_TARGETS, type Side } from "../firmnessTargets.ts";
import { carries } from "../../material/kinds.ts";
import { mg, type Mg } from "../../measure/exact.ts";
import { grams, sayShare } from "../../measure/write.ts";
import { RECIPE_TYPES } from "../types.ts";
import { forScale, inGrams, type Judge, type Judged, type JudgedLine, type Judgement, type SuggestedFix } from "./judgement.ts";

const heaviest = (lines: readonly JudgedLine[]): JudgedLine | undefined => [...lines].sort((a, b) => b.weight - a.weight)[0];

/** What a pot is made harder or softer with, of what is in it already: its wax, or its oil. A massage bar is hard by its butter: wax doesn't melt on skin. */
export const mendingLine = (of: Pick<Judged, "lines" | "type">, harder: boolean): JudgedLine | undefined =>
  heaviest(
    of.lines.filter(
      (l) => carries(l) && (!harder ? l.sets.as === "liquid" : of.type === "massageBar" ? l.kind === "hardButter" : l.sets.as === "wax"),
    ),
  );

function mended(of: Judged, line: JudgedLine, more: Mg): SuggestedFix | null {
  if (!inGrams(of)) return null;
  const entered = forScale(mg(line.weight + more), of.scale, "up");
  return { say: `Make it ${entered} of ${line.name}: ${grams(more)} more`, rows: [{ row: line.row, entered }] };
}

/** What of the pot brings it to a wish, and how much more of it; null where nothing does. */
function bringing(of: Judged, wished: Wished, harder: boolean): { line: JudgedLine; more: Mg } | null {
  const line = mendingLine(of, harder);
  const more = line ? mendWith(of.lines, line.sets, wished, of.constants) : null;
  return line && more ? { line, more } : null;
}

/** What a side of a wish finds, with its bound: what is there of all of it in the kitchen, of its wax on skin. */
function sideText(mix: Mix, of: Judged, { soft, hard }: { soft: Side; hard: Side }, fit: "soft" | "hard"): string {
  const product = RECIPE_TYPES[of.type].label.toLowerCase();
  const side = fit === "soft" ? soft : hard;
  const now = sayShare(measured(mix, side, of.constants));
  if (side.part === "wax")
    return `on skin, at ${side.celsius} °C, ${now} of wax are still solid; over ${sayShare(side.bound)} a ${product} drags`;
  const where = side.celsius === SAID_AT ? "" : ` at ${side.celsius} °C`;
  return hard.part === side.part
    ? `it sets like ${now} beeswax in plain oil${where}; a ${product} is right from ${sayShare(soft.bound)} to ${sayShare(hard.bound)}`
    : `it sets like ${now} beeswax in plain oil${where}; a ${product} wants ${sayShare(side.bound)} there`;
}

function unfit(mix: Mix, of: Judged): Judgement[] {
  const fit = fitOf(mix, of.type, of.constants);
  if (fit === "fit") return [];
  const wish = FIRMNESS_TARGETS[of.type];
  const by = bringing(of, wishOf(of.type, fit === "soft"), fit === "soft");
  return [
    {
      key: `set.${fit}`,
      gravity: 2,
      say: `Likely ${sayFit(mix, of.type, of.constants)}.`,
      why: `An estimate: ${sideText(mix, of, wish, fit)}.${by ? ` ${grams(by.more)} more ${by.line.name} would bring it well within that.` : ""}`,
      figure: sayShare(measured(mix, wish[fit], of.constants)),
      mend: by && mended(of, by.line, by.more),
    },
  ];
}

function whereWarm(mix: Mix, of: Judged): Judgement[] {
  const { warm } = FIRMNESS_TARGETS[of.type];
  if (!warm) return [];
  const place = PLACES[warm.at];
  const now = firmness(mix, place.celsius, of.constants);
  if (now >= warm.least) return [];
  const by = bringing(of, { firm: warm.least, celsius: place.celsius }, true);
  return [
    {
      key: "set.warm",
      gravity: 1,
      say: `Likely ${warm.say} ${place.in}.`,
      why: `At ${place.celsius} °C it is estimated as soft as ${sayShare(now)} beeswax. ${by ? `${grams(by.more)} more ${by.line.name} would hold it; else keep` : "Keep"} it cool, or sell it in the cooler months.`,
      figure: `${place.celsius} °C`,
      mend: by && mended(of, by.line, by.more),
    },
  ];
}

const whereCold = (mix: Mix, of: Judged): Judgement[] =>
  cracksInCold(mix, of.constants)
    ? [
        {
          key: "set.cold",
          gravity: 1,
          say: "Likely brittle in the cold: it may crack.",
          why: `At ${COLD} °C hardly any of it is liquid: a cold house or a winter parcel breaks it, and so does a freezer while it sets. Let it set at room warmth and keep it there; some liquid oil or shea in place of cocoa butter or coconut makes it tougher.`,
          figure: `${COLD} °C`,
          mend: null,
        },
      ]
    : [];

export const judgeSetting: Judge = (of) => {
  const mix = mixOf(of.lines);
  const [first] = [...unfit(mix, of), ...whereWarm(mix, of)];
  return [...(first ? [first] : []), ...whereCold(mix, of)];
};
