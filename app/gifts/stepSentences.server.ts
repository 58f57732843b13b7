/** Steps of an order as sentences, each with where it is done: said by the server, so that no page needs to know how. */
import { showStock } from "#core/measure/write";
import type { NamedStep } from "#db/gifts/begin";
import type { Day } from "#core/when";

export interface SaidStep {
  to: string;
  what: string;
  /** Before the last day to begin it: "order by". */
  by: string;
  day: Day;
  late: boolean;
  /** The first day it can be done, where that is later; after `how`. */
  from: Day | null;
  /** After that day: how, or from when on it can be. */
  how: string;
}

function say(s: NamedStep, orderId: number): Pick<SaidStep, "to" | "what" | "by"> {
  const amount = showStock(s.amount, s.measured);
  const units = `${s.amount} × ${s.name}`;
  switch (s.does) {
    case "pour":
      return { to: `/bench/${s.batchId}`, what: `Pour ${units}: set out already`, by: "pour by" };
    case "make":
      return { to: `/bench/set-out?recipe=${s.recipeId}&size=${s.productId}&units=${s.amount}`, what: `Make ${units}`, by: "pour by" };
    case "instead":
      return { to: `/gifts/${orderId}`, what: `${units} is no longer made: choose another`, by: "by" };
    case "strain":
      return { to: `/jars/${s.jarId}#strain`, what: `Strain ${amount} ${s.name}`, by: "by" };
    case "fill":
      return { to: `/jars/fill?makes=${s.materialId}`, what: `Fill a jar for ${amount} ${s.name}`, by: "fill by" };
    case "await":
      return { to: `/shelf/${s.materialId}`, what: `${amount} ${s.name} is still to come`, by: "here by" };
    case "buy":
      return { to: `/shelf/${s.materialId}/buying`, what: `Buy ${amount} ${s.name}`, by: "order by" };
  }
}

function rest(s: NamedStep): Pick<SaidStep, "day" | "late" | "how" | "from"> {
  const from = s.does === "strain" && s.from > s.by ? s.from : null;
  return { day: s.by, late: s.late, how: from ? ", ready at the earliest " : s.how && ` (${s.how})`, from };
}

export const stepSentences = (steps: readonly NamedStep[], orderId: number): SaidStep[] =>
  steps.map((s) => {
    const said = say(s, orderId);
    return { ...said, ...rest(s), by: s.late ? `late: ${said.by}` : said.by };
  });
