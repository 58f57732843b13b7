/** Reading the sheet of opening stock: the same on the page, as it is typed, and on the server. */
import { factsIn, type MaterialFacts } from "../material/facts.ts";
import { micros, type Base, type Micros } from "../measure/exact.ts";
import { parseMoney } from "../measure/read.ts";
import type { Outcome } from "../outcome.ts";
import type { FieldProblem } from "../refused.ts";
import { readDay, type Day } from "../when.ts";
import type { CostKnown } from "./costKnown.ts";
import { readStock } from "./packs.ts";

/** A line as typed. */
export type OpeningTexts = {
  material: string;
  amount: string;
  cost: string;
  /** Whether the cost is what was paid or a guess; without a cost it is not known. */
  known: string;
  bought: string;
  supplierLot: string;
  bestBefore: string;
};

export interface OpeningRead<M> {
  material: M;
  qty: Base;
  cost: Micros;
  costKnown: CostKnown;
  bought: Day | null;
  supplierLot: string;
  bestBefore: Day | null;
}

/** A line without an amount: it is passed over. */
const isOpen = (l: OpeningTexts): boolean => [l.amount, l.cost, l.bought, l.supplierLot, l.bestBefore].every((t) => t.trim() === "");

/**
 * Reads the lines; those without an amount and anything else are passed over.
 * @param find the material of a name; null when there is none
 * @returns what each line comes to (null where it is passed over or has a problem) and the problems, beside their fields
 * @example readOpening([{ ...openingLine, material: "Jojoba oil", amount: "1 L" }], libraryByName, today).lines[0]?.costKnown // "none"
 */
export function readOpening<M extends MaterialFacts>(
  lines: readonly OpeningTexts[],
  find: (name: string) => M | null,
  today: Day,
): { lines: (OpeningRead<M> | null)[]; problems: FieldProblem[] } {
  const problems: FieldProblem[] = [];
  const read = lines.map((l, i): OpeningRead<M> | null => {
    if (isOpen(l)) return null;
    const before = problems.length;
    const bad = (field: keyof OpeningTexts, say: string): null => {
      problems.push({ field: `lines.${i}.${field}`, say });
      return null;
    };
    const take = <T>(field: keyof OpeningTexts, o: Outcome<T>): T | null => (o.ok ? o.value : bad(field, o.problem.say));
    const dayOr = (field: "bought" | "bestBefore"): Day | null => (l[field].trim() === "" ? null : take(field, readDay(l[field])));
    const name = l.material.trim();
    const material = find(name);
    if (!material) {
      return bad(
        "material",
        name === "" ? "Say what it is." : `“${name}” is neither on the shelf nor in the library. Add it, or choose one from the list.`,
      );
    }
    const qty = take("amount", readStock(l.amount, factsIn(material)));
    if (qty === 0) bad("amount", "Enter how much there is of it.");
    const cost = l.cost.trim() === "" ? null : take("cost", parseMoney(l.cost));
    const bought = dayOr("bought");
    if (bought !== null && bought > today) bad("bought", "That day hasn't come yet.");
    const bestBefore = dayOr("bestBefore");
    if (problems.length > before || qty === null) return null;
    const costKnown: CostKnown = cost === null ? "none" : l.known === "guessed" ? "guessed" : "paid";
    return { material, qty, cost: cost ?? micros(0), costKnown, bought, supplierLot: l.supplierLot.trim().slice(0, 60), bestBefore };
  });
  return { lines: read, problems };
}
