/** Where a maker's spreadsheets come in, in the order in which one needs what the one before it brought. */
import { Link } from "react-router";
import { Part, Sheet } from "../ui/sheet/sheet.tsx";

const LISTS = [
  ["/shelf/file", "What you keep", "materials and containers by themselves; leave it out where the next one names them"],
  ["/shelf/opening/file", "What is on the shelf", "materials and containers, with how much there is of each and what it cost"],
  ["/shelf/receive/file", "What was bought", "receipts by supplier and day"],
  ["/recipes/file", "Recipes", "a row for each ingredient"],
  ["/cabinet/file", "What is finished", "tins and jars made before the books began"],
  ["/prices/file", "Prices", "a column for each channel"],
  ["/markets/file", "Earlier market days", "by product, or the day’s takings alone"],
  ["/gifts/file", "Orders", "those to be packed, and those long handed over"],
  ["/people/file", "Suppliers, customers, markets", "names and how to reach them"],
] as const;

export const ListsIn = () => (
  <Sheet className="mt-6">
    <Part title="Or bring your spreadsheets" aside={<span className="text-pine-soft">CSV, .xlsx or a paste</span>}>
      <p className="mb-1 max-w-prose text-pine-soft">
        In this order, since each needs what the one before it brought. Every list is shown before it goes in, and is taken back as one.
      </p>
      <ul>
        {LISTS.map(([to, say, about]) => (
          <li key={to} className="border-b border-rule last:border-0">
            <Link to={to} className="flex flex-wrap items-baseline gap-x-4 rounded px-1 py-2 hover:bg-honey-wash">
              <span className="font-display text-lead">{say}</span>
              <span className="text-small text-pine-soft">{about}</span>
            </Link>
          </li>
        ))}
      </ul>
    </Part>
  </Sheet>
);
