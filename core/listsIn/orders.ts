/** Gift orders as a list: a row for each product of an order, those to be packed and those that went out long ago. */
import { CENT, micros, type Micros } from "../measure/exact.ts";
import { isKeyOf } from "../objects.ts";
import type { Day } from "../when.ts";
import { looseDay } from "../intake/loose.ts";
import { cellsOf, type Cells, type Reading } from "./cells.ts";
import { groupsOf, heldBack, oneOfAll } from "./groups.ts";
import type { ListRead, ListRow, ListSpec, RowProblem } from "./list.ts";
import { productIn, unknownNames, type ProductFinder } from "./products.ts";

export type OrderField = "order" | "customer" | "due" | "product" | "size" | "units" | "price" | "total" | "state" | "handedOver" | "note";

export const ORDERS: ListSpec<OrderField> = {
  fields: {
    order: "Order",
    customer: "For",
    due: "Due",
    product: "Product",
    size: "Size",
    units: "Units",
    price: "Price of one",
    total: "Price of its line",
    state: "State",
    handedOver: "Handed over",
    note: "Note",
  },
  words: {
    order: ["order no", "order number", "order id", "=order", "=no", "=nr"],
    handedOver: ["handed over", "delivered on", "sent on", "collected on", "packed on", "shipped", "delivered", "collected"],
    state: ["state", "status", "done", "packed"],
    due: ["due", "needed", "wanted", "deadline", "by when", "date", "day", "for when"],
    customer: ["customer", "client", "for", "name of", "who", "buyer", "name"],
    total: ["total", "line", "sum", "amount", "in all"],
    price: ["price", "each", "unit price"],
    units: ["units", "qty", "quantity", "count", "pieces", "how many", "number"],
    size: ["size", "fill", "container", "weight", "tin"],
    note: ["note", "remark", "comment", "message"],
    product: ["product", "item", "article", "goods", "what", "contents"],
  },
  first: "customer",
  needed: ["customer", "due", "product", "units"],
  group: "customer",
  carried: ["order", "customer", "due"],
  figures: ["units", "price", "total"],
  days: { due: "any", handedOver: "past" },
};

/** What became of orders that were due before today, where the list doesn't say. */
export const DUE_BEFORE = { out: "handed over on their day", open: "still to be packed" } as const;
export type DueBefore = keyof typeof DUE_BEFORE;

export interface OrderLine {
  row: number;
  customer: string;
  due: Day;
  note: string;
  items: { productId: number; units: number; price: Micros }[];
  /** The day it went out; null while it is to be packed. */
  handedOver: Day | null;
}

const MOST_UNITS = 10_000;
const OUT = /\b(packed|done|sent|shipped|delivered|collected|picked up|handed|paid|complete|completed|closed|yes|x)\b|✓|✔/i;
const OPEN = /\b(open|new|to pack|to do|not|pending|waiting|ordered|no|unpaid)\b/i;
/** How an order is told that the books have already. @example sameOrder("The Choir", "2026-12-20") // "the choir|2026-12-20" */
export const sameOrder = (customer: string, due: Day): string => `${customer.trim().toLowerCase()}|${due}`;

/**
 * Every order with all of its lines.
 * @param there orders the books have, as `sameOrder` tells them
 * @param before what became of those due before today; null where nobody has said
 * @returns also whether that has to be said
 * @example readOrders([], noProducts, new Set(), null, reading).asksBefore // false
 */
export function readOrders(
  rows: readonly ListRow<OrderField>[],
  products: ProductFinder,
  there: ReadonlySet<string>,
  before: DueBefore | null,
  reading: Reading,
): ListRead<OrderLine> & { asksBefore: boolean } {
  const out: ListRead<OrderLine> = { fresh: [], there: [], problems: [], unknown: [], remarks: [] };
  const unknown = unknownNames();
  let asksBefore = false;

  const item = (row: ListRow<OrderField>, cells: Cells<OrderField>): OrderLine["items"][number] | null => {
    const { name, productId } = productIn(cells, products, unknown);
    const units = cells.whole("units", MOST_UNITS);
    if (units === 0 || (units === null && row.text("units") === "")) cells.fail(`It doesn't say how many of “${name}”.`);
    const price = cells.money("price") ?? shareOf(cells.money("total"), units);
    if (price === null && cells.problems.length === 0) cells.fail(`It doesn't say what one of “${name}” was sold for.`);
    return productId === null || units === null || price === null ? null : { productId, units, price };

    function shareOf(total: Micros | null, of: number | null): Micros | null {
      if (total === null || !of) return null;
      return total % (of * CENT) === 0
        ? micros(total / of)
        : cells.fail(`${row.text("total")} for ${of} doesn't come to whole cents each.`);
    }
  };

  /** The day a row says it went out on, "" where it says that it hasn't; null where it says neither. */
  const wentOut = (row: ListRow<OrderField>, cells: Cells<OrderField>, due: Day | null): Day | null => {
    const on = cells.day("handedOver", "past");
    const state = row.text("state");
    if (on !== null) return on;
    // A day in the column of states is the day it went out on.
    const dated = looseDay(state, reading.dates);
    if (dated.ok) return dated.value <= reading.today ? dated.value : "";
    if (OPEN.test(state)) return "";
    return OUT.test(state) && due !== null ? (due < reading.today ? due : reading.today) : null;
  };
  /** The same of an order none of whose rows says it: what is due is to be packed, and what was due is asked about. */
  const silent = (due: Day): Day | null => {
    if (due >= reading.today) return null;
    asksBefore = true;
    return before === "out" ? due : null;
  };

  for (const { rows: own } of groupsOf(rows, (r) => [r.text("order"), r.text("customer"), r.text("due")].join("\n").toLowerCase())) {
    const problems: RowProblem[] = [];
    const read = own.map((row) => {
      const cells = cellsOf(row, reading, ORDERS.fields);
      const customer = cells.text("customer", 80) || cells.fail("It doesn't say who it is for.");
      const due = cells.day("due", "any") ?? (row.text("due") === "" ? cells.fail("It doesn't say when it is due.") : null);
      const of = { row: row.at, customer, due, item: item(row, cells), out: wentOut(row, cells, due), note: cells.text("note", 1000) };
      problems.push(...cells.problems);
      return of;
    });
    const went = oneOfAll(
      read.map((r) => ({ row: r.row, value: r.out })),
      "state of the order",
    );
    if (went.problem) problems.push(went.problem);
    const [head] = read;
    out.problems.push(
      ...problems,
      ...(problems.length > 0
        ? heldBack(
            own.map((r) => r.at),
            problems,
            "order",
          )
        : []),
    );
    if (problems.length > 0 || !head?.customer || !head.due) continue;
    if (there.has(sameOrder(head.customer, head.due))) {
      out.there.push({ row: head.row, name: head.customer });
      continue;
    }
    out.fresh.push({
      row: head.row,
      customer: head.customer,
      due: head.due,
      note: [...new Set(read.map((r) => r.note).filter(Boolean))].join("\n"),
      items: read.flatMap((r) => r.item ?? []),
      handedOver: went.value === null ? silent(head.due) : went.value || null,
    });
  }
  return { ...out, unknown: unknown.all(), asksBefore };
}

/** @example dueBeforeOf("out") // "out" */
export const dueBeforeOf = (text: string): DueBefore | null => (isKeyOf(DUE_BEFORE, text) ? text : null);
