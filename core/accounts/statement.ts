/**
 * A period's money, as an accountant asks for it: what stock there was, what came in, what went out and why, and what there was at the end.
 * Every movement of the ledger is in one line of it, so that the lines add up from the one stock to the other, to the micro. Which line a
 * movement belongs in is common practice, no source; it is a help with the books, and no tax advice.
 */
import { REASONS, type Reason } from "../ledger/reasons.ts";
import { micros, sum, type Micros } from "../measure/exact.ts";

/** The lines between the stock at the start and at the end, in their order. */
export const FLOWS = {
  bought: "Bought, with its share of postage, tax and discount",
  began: "There before the books began",
  grown: "Picked and dried",
  counted: "Found or missing in counts",
  sentBack: "Sent back to suppliers",
  sold: "Cost of goods sold, with their wrapping",
  given: "Testers, given away and own use",
  thrown: "Thrown away or damaged",
  making: "Lost in making",
} as const;
export type Flow = keyof typeof FLOWS;
export const FLOW_IDS = Object.keys(FLOWS) as Flow[];

/** Each reason of the ledger in one line. What was corrected or taken back counts where the movement it is about counts. */
const FLOW_OF: Record<Exclude<Reason, "corrected" | "restated" | "undone">, Flow> = {
  received: "bought",
  opening: "began",
  harvested: "grown",
  counted: "counted",
  returned: "sentBack",
  sold: "sold",
  ordered: "sold",
  wrapped: "sold",
  cameBack: "sold",
  tester: "given",
  gift: "given",
  given: "given",
  own: "given",
  damaged: "thrown",
  wasted: "thrown",
  used: "making",
  filled: "making",
  leftOver: "making",
  infused: "making",
  strained: "making",
  blended: "making",
  remelted: "making",
};

/** @throws TypeError for a reason that only corrects another movement @example flowOf("ordered") // "sold" */
export function flowOf(reason: Reason): Flow {
  if (reason === "corrected" || reason === "restated" || reason === "undone")
    throw new TypeError(`${REASONS[reason].say} stands where what it is about stands`);
  return FLOW_OF[reason];
}

/** Parts of the stock, as they are counted. */
export const STOCKS = {
  ingredient: "Ingredients",
  packaging: "Packaging",
  finished: "Finished units",
  jars: "In jars that steep",
} as const;
export type Stock = keyof typeof STOCKS;
export const STOCK_IDS = Object.keys(STOCKS) as Stock[];

/** What the ledger's movements for one reason come to in one part of the stock: before the period, and in it. */
export interface Moved {
  stock: Exclude<Stock, "jars">;
  reason: Reason;
  before: Micros;
  within: Micros;
}

export interface Statement {
  start: Record<Stock, Micros>;
  end: Record<Stock, Micros>;
  flows: Record<Flow, Micros>;
}

const by = <K extends string>(ids: readonly K[], of: (id: K) => Micros): Record<K, Micros> =>
  Object.fromEntries(ids.map((id) => [id, of(id)])) as Record<K, Micros>;

/**
 * @param inJars what was in jars that steeped, at the start and at the end: it is in no lot, and is still there
 * @example statementOf([{ stock: "ingredient", reason: "received", before: micros(5), within: micros(2) }], { start: micros(0), end: micros(0) }).end.ingredient // 7
 */
export function statementOf(moved: readonly Moved[], inJars: { start: Micros; end: Micros }): Statement {
  const worth = (stock: Stock, of: (m: Moved) => number): Micros =>
    micros(sum(moved.filter((m) => m.stock === stock).map((m) => micros(of(m)))));
  const start = by(STOCK_IDS, (s) => (s === "jars" ? inJars.start : worth(s, (m) => m.before)));
  const end = by(STOCK_IDS, (s) => (s === "jars" ? inJars.end : worth(s, (m) => m.before + m.within)));
  const flows = by(FLOW_IDS, (flow) => sum(moved.filter((m) => flowOf(m.reason) === flow).map((m) => m.within)));
  // What went into jars and is still in them isn't lost.
  flows.making = micros(flows.making + inJars.end - inJars.start);
  return { start, end, flows };
}

/** The parts of a statement; the first two add up to the last. */
export const PARTS = { start: "Stock at the start", moved: "What moved it", end: "Stock at the end" } as const;

export interface StatementLine {
  part: keyof typeof PARTS;
  say: string;
  amount: Micros;
  /** Of a line between the stocks: which. */
  flow?: Flow;
}

/**
 * A statement line by line.
 * @param dearer by replacement cost: how much more the stock at the start and at the end would cost to buy again than it did; else null
 * @example statementLines(statementOf([], { start: micros(2), end: micros(5) }), null).filter((l) => l.part === "moved" && l.amount !== 0).map((l) => [l.flow, l.amount]) // [["making", 3]]
 */
export function statementLines({ start, end, flows }: Statement, dearer: { start: Micros; end: Micros } | null): StatementLine[] {
  const stock = (part: "start" | "end", of: Record<Stock, Micros>): StatementLine[] => [
    ...STOCK_IDS.map((s) => ({ part, say: STOCKS[s], amount: of[s] })),
    ...(dearer ? [{ part, say: "More or less at replacement cost", amount: dearer[part] }] : []),
  ];
  return [
    ...stock("start", start),
    ...FLOW_IDS.map((flow) => ({ part: "moved" as const, say: FLOWS[flow], amount: flows[flow], flow })),
    ...(dearer ? [{ part: "moved" as const, say: "Dearer or cheaper to buy again", amount: micros(dearer.end - dearer.start) }] : []),
    ...stock("end", end),
  ];
}

/** The whole of a stock. @example wholeStock({ ingredient: micros(1), packaging: micros(2), finished: micros(3), jars: micros(4) }) // 10 */
export const wholeStock = (stock: Record<Stock, Micros>): Micros => sum(STOCK_IDS.map((s) => stock[s]));

/** What was taken at a stall or for an order, and what it cost to take it. */
export interface Sale {
  channel: "market" | "order";
  id: number;
  /** Where, or for whom. */
  place: string;
  day: string;
  takings: Micros;
  stall: Micros;
  travel: Micros;
  card: Micros;
  /** What was sold is in the ledger; not so what was sold before the books began. */
  costKnown: boolean;
}

/** Sales of one channel, by place, the largest first. @example placesOf([{ channel: "market", place: "Fair", takings: micros(5), stall: micros(2), travel: micros(0), card: micros(0) }], "market")[0].fees // 2 */
export function placesOf(sales: readonly Sale[], channel: Sale["channel"]): { place: string; of: Sale[]; takings: Micros; fees: Micros }[] {
  const places = new Map<string, Sale[]>();
  for (const s of sales) if (s.channel === channel) places.set(s.place, [...(places.get(s.place) ?? []), s]);
  return [...places]
    .map(([place, of]) => ({ place, of, takings: sum(of.map((s) => s.takings)), fees: sum(of.map(feesOf)) }))
    .sort((a, b) => b.takings - a.takings || a.place.localeCompare(b.place, "en"));
}

/** @example feesOf({ stall: micros(3), travel: micros(2), card: micros(1) }) // 6 */
export const feesOf = ({ stall, travel, card }: Pick<Sale, "stall" | "travel" | "card">): Micros => sum([stall, travel, card]);

/**
 * What sales brought, what it cost to sell, and what they left after their goods; hours, overhead and tax come off that.
 * @param sold the line of that name, below zero
 * @example salesSums([{ channel: "order", id: 1, place: "Nan", day: "2026-12-01", takings: micros(9), stall: micros(0), travel: micros(0), card: micros(1) }], micros(-3)) // { takings: 9, fees: 1, left: 5 }
 */
export function salesSums(sales: readonly Sale[], sold: Micros): { takings: Micros; fees: Micros; left: Micros } {
  const takings = sum(sales.map((s) => s.takings));
  const fees = sum(sales.map(feesOf));
  return { takings, fees, left: micros(takings + sold - fees) };
}
