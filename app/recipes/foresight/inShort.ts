/** What each page of the foresight would say, in a line: enough to know whether to open it. */
import { firmness, mixOf, SAID_AT } from "#core/firmness/model";
import { FEELS, feelOf } from "#core/firmness/words";
import { CAUTIONS } from "#core/material/cautions";
import { mindedOf } from "#core/material/minded";
import { money } from "#core/measure/money";
import { sayShare } from "#core/measure/write";
import { keepingOf } from "#core/recipe/keeping";
import { fitOf, sayFit } from "#core/recipe/firmnessTargets";
import { isScent, scentOf } from "#core/scent/dilution";
import { counted, wordList } from "#core/words";
import { useMemo } from "react";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Costing } from "../costing.ts";
import type { Foreseen } from "./foreseen.ts";

/** Until the recipe adds up: what there would be to read. */
const LATER = {
  sets: "how firm it is in the kitchen, in a pocket and in a hot car",
  scent: "how much scent it may have",
  mind: "its allergens, and whom it isn't for",
  keeps: "what turns first, and what would lengthen it",
  instead: "what could stand in for what",
  more: "another amount, and what changes with it",
  fills: "how many of which size",
  costs: "what makes it dear, and what would save",
};

interface Of {
  foreseen: Foreseen;
  costing: Costing;
  unread: string | null;
}

/** What each page would say, in a line. */
export function useInShort({ unread, foreseen: { judged }, costing }: Of): typeof LATER {
  const { currency, school, today } = useWorkshop();
  return useMemo(() => {
    const [size] = costing.sizes;
    if (unread !== null || judged.lines.length === 0 || !size) return LATER;
    const mix = mixOf(judged.lines);
    const firm = firmness(mix, SAID_AT, judged.constants);
    const { type, constants } = judged;
    const scent = scentOf(judged.lines.filter(isScent), judged.total, judged.usedOn, judged.forWhom);
    const minded = mindedOf(judged.lines);
    const keeping = keepingOf(judged.lines, today, judged.keepsMonths);
    const costs = costing.sizes.map((s) => ({ label: s.label, cost: costing.cost(s) }));
    const one = costs[0]!.cost.perUnit[school];
    return {
      ...LATER,
      sets: `likely ${FEELS[feelOf(firm)].say} in the kitchen${fitOf(mix, type, constants) === "fit" ? "" : `: ${sayFit(mix, type, constants)}`}`,
      scent: scent ? `${sayShare(scent.share)}, of at most ${sayShare(scent.most.share)}` : "no scent in it",
      mind:
        wordList([...minded.allergens.map((a) => a.name.toLowerCase()), ...minded.cautions.map((c) => CAUTIONS[c.id].label)]) || "nothing",
      keeps: `${counted(keeping.months, "month")}${keeping.months < judged.keepsMonths ? `, not ${judged.keepsMonths}` : ""}`,
      fills: wordList(costs.map((c) => `${c.cost.fill.units} × ${c.label}`)).replace(" and ", " or "),
      costs: one ? `${money(one.total, currency)} for one ${costs[0]!.label}` : LATER.costs,
    };
  }, [unread, judged, costing, currency, school, today]);
}
