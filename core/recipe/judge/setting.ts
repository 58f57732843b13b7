/** How it will set: in the kitchen, and where it gets warm. */
import { mendWith } from "../../firmness/mend.ts";
import { firmness, mixOf, SAID_AT } from "../../firmness/model.ts";
import { PLACES } from "../../firmness/words.ts";
import { fitOf, middleOf, sayFit, WISHES } from "../wishes.ts";
import { carries } from "../../material/kinds.ts";
import { mg, type Mg } from "../../measure/exact.ts";
import { grams, sayShare } from "../../measure/write.ts";
import { RECIPE_TYPES } from "../types.ts";
import { forScale, inGrams, type Judge, type Judged, type JudgedLine, type Mend } from "./judgement.ts";

const heaviest = (lines: readonly JudgedLine[]): JudgedLine | undefined => [...lines].sort((a, b) => b.weight - a.weight)[0];

/** What a pot is made harder or softer with, of what is in it already: its wax, or its oil. */
export const mendingLine = (of: Pick<Judged, "lines">, harder: boolean): JudgedLine | undefined =>
  heaviest(of.lines.filter((l) => carries(l) && l.sets.as === (harder ? "wax" : "liquid")));

function mended(of: Judged, line: JudgedLine, more: Mg): Mend | null {
  if (!inGrams(of)) return null;
  const entered = forScale(mg(line.weight + more), of.scale, "up");
  return { say: `Make it ${entered} of ${line.name}: ${grams(more)} more`, rows: [{ row: line.row, entered }] };
}

export const judgeSetting: Judge = (of) => {
  const mix = mixOf(of.lines);
  const now = firmness(mix, SAID_AT, of.constants);
  const fit = fitOf(now, of.type);
  const product = RECIPE_TYPES[of.type].label.toLowerCase();
  if (fit !== "fit") {
    const line = mendingLine(of, fit === "soft");
    const [low, high] = WISHES[of.type].right;
    const more = line ? mendWith(of.lines, line.sets, { firm: middleOf(of.type), celsius: SAID_AT }, of.constants) : null;
    const by = line && more ? ` ${grams(more)} more ${line.name} would bring it to the middle of that.` : "";
    return [
      {
        key: `set.${fit}`,
        gravity: 2,
        say: `Likely ${sayFit(now, of.type)}.`,
        why: `An estimate: it sets like ${sayShare(now)} beeswax in plain oil; a ${product} is right from ${sayShare(low)} to ${sayShare(high)}.${by}`,
        figure: sayShare(now),
        mend: line && more ? mended(of, line, more) : null,
      },
    ];
  }
  const { at, least, say } = WISHES[of.type].warm;
  const place = PLACES[at];
  const warm = firmness(mix, place.celsius, of.constants);
  if (warm >= least) return [];
  const line = mendingLine(of, true);
  const more = line ? mendWith(of.lines, line.sets, { firm: least, celsius: place.celsius }, of.constants) : null;
  return [
    {
      key: "set.warm",
      gravity: 1,
      say: `Likely ${say} ${place.in}.`,
      why: `At ${place.celsius} °C it is estimated as soft as ${sayShare(warm)} beeswax. ${line && more ? `${grams(more)} more ${line.name} would hold it; else keep` : "Keep"} it cool, or sell it in the cooler months.`,
      figure: `${place.celsius} °C`,
      mend: line && more ? mended(of, line, more) : null,
    },
  ];
};
