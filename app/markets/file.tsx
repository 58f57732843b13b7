/** Market days from before the books, from a spreadsheet's file or a paste: shown first, written down as one act. */
import { DAYS, NO_PRODUCT, readDays, takingsOf, type DayField, type DayLine } from "#core/listsIn/days";
import { money } from "#core/measure/money";
import { addPastDays, daysAlready } from "#db/listsIn/pastDays";
import { Link } from "react-router";
import { listAction } from "../forms/table/listFile.server.ts";
import { ListFile } from "../forms/table/listFile.tsx";
import { productChoices, productsMeant } from "../forms/table/products.server.ts";
import { unknownProducts } from "../forms/table/unknownNames.tsx";
import { db } from "../server/workshop.server.ts";
import { When } from "../ui/figures/amounts.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import type { Route } from "./+types/file";

export const meta: Route.MetaFunction = () => [{ title: "Earlier market days, from a file · Zelbin" }];

export const loader = async () => ({ products: await productChoices(), token: crypto.randomUUID() });

const WORDS = ["market day", "market days"] as const;
/** So many of a day's sales are named in the preview. */
const NAMED = 3;

export const action = ({ request }: Route.ActionArgs) =>
  listAction(request, {
    spec: DAYS,
    words: WORDS,
    read: async ({ rows, reading, matches }) => {
      const [meant, there] = await Promise.all([productsMeant(matches), daysAlready(db())]);
      const list = readDays(rows, meant, there, reading);
      return { list, more: null, add: (doing) => addPastDays(db(), { days: list.fresh }, doing) };
    },
  });

export default function DaysFile({ loaderData: { products, token } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  return (
    <ListFile<DayField, DayLine, null>
      spec={DAYS}
      token={token}
      title="Earlier market days, from a file"
      about="Days from before the books began: a row for each product sold, or one for the whole day’s takings. Nothing leaves the cabinet for them, and what those goods cost isn’t known."
      links={
        <Link to="/markets" className="act">
          All days
        </Link>
      }
      placeholder={
        "date;market;product;size;sold;price;stall fee\n12.06.2026;Market on the green;Hand balm;60 g;7;12,50;30\n;;Lip balm;;11;4,50;"
      }
      words={WORDS}
      names={unknownProducts(products, "leave these days out", [[NO_PRODUCT, "none any more: its takings count"]])}
      columns={[
        { head: "Market", cell: (l) => <span className="font-display text-lead">{l.market}</span> },
        { head: "Day", cell: (l) => <When day={l.day} /> },
        {
          head: "Sold",
          plain: true,
          cell: (l) =>
            [
              ...l.sales.slice(0, NAMED).map((s) => (s.units > 0 ? `${s.units} × ${s.name}` : s.name)),
              ...(l.sales.length > NAMED ? [`and ${l.sales.length - NAMED} more`] : []),
            ].join(", "),
        },
        { head: "Takings", as: "figure", className: "font-semibold", cell: (l) => money(takingsOf(l.sales), currency) },
        { head: "Fee, travel", as: "figure", cell: (l) => money(l.stallFee + l.travel, currency) },
        { head: "Hours", as: "figure", cell: (l) => (l.minutes > 0 ? l.minutes / 60 : "") },
      ]}
    />
  );
}
