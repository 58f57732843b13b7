/** Gift orders as a file, and what is in them as another. */
import type { FileColumn } from "#core/lists/fileColumns";
import { STANDINGS } from "#core/gift/standing";
import type { LinesFile } from "../ui/lists/saveList.tsx";
import type { Route } from "./+types/gifts";
import type { LineOfOrder } from "./lines.ts";

type Order = Route.ComponentProps["loaderData"]["rows"][number];

const columns: FileColumn<Order>[] = [
  { head: "due", of: (o) => o.due },
  { head: "for", of: (o) => o.customer },
  { head: "what", of: (o) => o.items },
  { head: "note", of: (o) => o.note },
  { head: "state", of: (o) => (o.packed ? "packed" : STANDINGS[o.standing ?? "ready"]) },
  { head: "discount", of: (o) => o.discountBp / 10_000, as: "percent" },
  { head: "price", of: (o) => o.price, as: "money" },
];

const lines: LinesFile<Order, LineOfOrder> = {
  from: "/gifts/lines",
  what: "lines of orders",
  by: (o) => o.id,
  columns: [
    { head: "due", of: (l) => l.due },
    { head: "for", of: (l) => l.customer },
    { head: "kind", of: (l) => l.what },
    { head: "what", of: (l) => l.name },
    { head: "units", of: (l) => l.units, as: "number" },
    { head: "price of one, before the discount", of: (l) => l.price, as: "money" },
    { head: "packed", of: (l) => (l.packed ? "yes" : "no") },
  ],
};

export const ORDERS_FILE = { columns, lines };
