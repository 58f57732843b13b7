/** What is ready before a batch, to be read beside the table or on paper. */
import type { ReadyItem } from "#core/batch/planning/ready";
import { Part } from "../../ui/sheet/sheet.tsx";

export function GetReady({ items }: { items: readonly ReadyItem[] }) {
  return (
    <Part title="Get ready">
      <ul className="grid gap-x-8 gap-y-2 sm:grid-cols-2">
        {items.map((i) => (
          <li key={i.what} className="grid gap-x-2.5 print:grid-cols-[auto_1fr]">
            {/* Ticked by hand where it is printed. */}
            <span aria-hidden="true" className="mt-1.5 hidden h-3 w-3 rounded-xs border border-rule-strong print:block" />
            <span>
              <span className="font-semibold">{i.what}</span>
              <span className="block text-small text-pine-soft">{i.how}</span>
            </span>
          </li>
        ))}
      </ul>
    </Part>
  );
}
