/**
 * Amounts of stock as they are bought and counted: "500 g", "1 L", "100 pcs", in the material's base unit.
 */
import { mg, type Base, type Mg } from "../measure/exact.ts";
import type { StockFacts } from "../material/facts.ts";
import { massOf } from "../measure/mass.ts";
import { parseAmount, parseNumber } from "../measure/parse.ts";
import { unit } from "../measure/units.ts";
import { done, refuse, type Outcome } from "../outcome.ts";

/** More pieces than any workroom holds of one thing. */
const ABSURD_PIECES = 1_000_000;

/**
 * Reads an amount of stock. Counted things may leave out "pcs"; weighed things need their unit. Zero is an amount here.
 * @returns problems of `parseAmount` and `massOf`, and `wrongKind`, `wholePieces`, `absurd`
 * @example readStock("1 L", sunflower) // 915 000 mg
 */
export function readStock(text: string, facts: StockFacts): Outcome<Base> {
  const bare = parseNumber(text);
  if (bare.ok && bare.value.equals(0)) return done(0);
  const amount = parseAmount(text, facts.measured === "count" ? "pc" : undefined);
  if (!amount.ok) return amount;
  if (amount.value.n.equals(0)) return done(0);
  if (facts.measured === "weight") return massOf(amount.value, facts);
  const u = unit(amount.value.unit);
  if (u.kind !== "count")
    return refuse("wrongKind", `${facts.name} is counted, not measured in ${u.plural ?? u.label}. Enter a number of pieces.`);
  const pieces = amount.value.n.valueOf();
  if (!Number.isInteger(pieces)) return refuse("wholePieces", "Enter a whole number of pieces.");
  return pieces > ABSURD_PIECES ? refuse("absurd", "That is over a million pieces. Check the number.") : done(pieces);
}

/**
 * So many packs of a size.
 * @param packs whole, at least 1
 * @returns problems of `readStock`, and `zero`, `absurd`
 * @example packAmount(2, "500 g", shea) // 1 000 000 mg
 */
export function packAmount(packs: number, packSize: string, facts: StockFacts): Outcome<Base> {
  const one = readStock(packSize, facts);
  if (!one.ok) return one;
  if (one.value === 0) return refuse("zero", "Enter what is in a pack.");
  const all = one.value * packs;
  return all > 1_000_000_000 ? refuse("absurd", "That is more than a workroom holds. Check the packs and their size.") : done(all);
}

/**
 * What an amount of stock weighs, for sharing postage by weight; null for pieces nobody has weighed.
 * @param emptyMg what one container weighs, where that is known instead of a piece
 * @example stockWeight(10, { ...tins, pieceMg: null }, mg(14_000)) // 140 g
 */
export function stockWeight(qty: Base, facts: StockFacts, emptyMg: number | null): Mg | null {
  if (facts.measured === "weight") return mg(qty);
  const piece = facts.pieceMg ?? emptyMg;
  return piece ? mg(qty * piece) : null;
}
