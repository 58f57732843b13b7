/** What is foreseen before anything is melted, a page for each question; a page is worked out only while it is open. */
import type { MaterialChoice } from "#core/recipe/written";
import { Tabs } from "radix-ui";
import { useState } from "react";
import type { Costing } from "../costing.ts";
import type { SheetForm } from "../sizes.tsx";
import type { Foreseen } from "./foreseen.ts";
import { Costs } from "../cost/costs.tsx";
import { Fill } from "../fill/fill.tsx";
import { Keeps } from "./keeping.tsx";
import type { Mending } from "./mending.ts";
import { Scaling } from "./scaling.tsx";
import { Scent } from "./scent.tsx";
import { Setting } from "./setting.tsx";

interface Props {
  foreseen: Foreseen;
  costing: Costing;
  materials: readonly MaterialChoice[];
  sheet: SheetForm;
  mending: Mending;
  /** What keeps it from adding up. */
  unread: string | null;
}

const PAGES = {
  sets: "How it sets",
  scent: "Scent",
  keeps: "How long it keeps",
  more: "More or less",
  fills: "What it fills",
  costs: "What it costs",
} as const;
type Page = keyof typeof PAGES;

export function Foresight({ foreseen: { judged, lots, shelf }, costing, materials, sheet, mending, unread }: Props) {
  const [page, turn] = useState<Page>("sets");
  return (
    <Tabs.Root value={page} onValueChange={(p) => turn(p as Page)} className="mt-7">
      <Tabs.List aria-label="What is foreseen" className="boards no-print px-0!">
        {(Object.keys(PAGES) as Page[]).map((p) => (
          <Tabs.Trigger key={p} value={p} className="board">
            {PAGES[p]}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value={page} className="border-t border-rule pt-4">
        {unread !== null || judged.lines.length === 0 ? (
          <p className="text-pine-soft">Foreseen once the ingredients add up.</p>
        ) : page === "sets" ? (
          <Setting judged={judged} costing={costing} mending={mending} />
        ) : page === "scent" ? (
          <Scent judged={judged} materials={materials} sheet={sheet} mending={mending} />
        ) : page === "costs" ? (
          <Costs costing={costing} shelf={shelf} lossBp={judged.lossBp} />
        ) : page === "fills" ? (
          <Fill judged={judged} costing={costing} shelf={shelf} mending={mending} />
        ) : page === "more" ? (
          <Scaling judged={judged} costing={costing} lots={lots} mending={mending} />
        ) : (
          <Keeps judged={judged} />
        )}
      </Tabs.Content>
    </Tabs.Root>
  );
}
