/** What is foreseen before anything is melted, a page for each question; a page is worked out only while it is open. */
import type { MaterialChoice } from "#core/recipe/written";
import { isKeyOf } from "#core/record";
import { Tabs } from "radix-ui";
import { memo, useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import { useSearchParams } from "react-router";
import type { Fitted } from "#core/firmness/fit";
import type { FeltProps } from "../felt/felt.tsx";
import type { Costing } from "../costing.ts";
import type { RecipeTexts } from "../recipeTexts.ts";
import type { Foreseen } from "./foreseen.ts";
import { useStood } from "../../names/useNamed.ts";
import { Costs } from "../cost/costs.tsx";
import { Fill } from "../fill/fill.tsx";
import { Instead } from "../instead/instead.tsx";
import { Keeps } from "./keeping.tsx";
import type { Mending } from "./mending.ts";
import { Scaling } from "./scaling.tsx";
import { Scent } from "./scent.tsx";
import { Setting } from "./setting.tsx";

interface Props {
  foreseen: Foreseen;
  costing: Costing;
  materials: readonly MaterialChoice[];
  form: UseFormReturn<RecipeTexts>;
  mending: Mending;
  learned: Fitted;
  /** What was felt of a recipe that is kept. */
  felt: FeltProps | null;
  /** What keeps it from adding up. */
  unread: string | null;
}

/** A page, and what stands on it. */
const PAGES = {
  sets: {
    name: "Sets",
    of: ({ foreseen: { judged }, ...p }: Props) => <Setting judged={judged} {...p} />,
  },
  scent: { name: "Scent", of: ({ foreseen: { judged }, ...p }: Props) => <Scent judged={judged} {...p} /> },
  keeps: { name: "Keeps", of: ({ foreseen: { judged }, mending }: Props) => <Keeps {...{ judged, mending }} /> },
  instead: { name: "Instead", of: ({ foreseen: { judged }, mending }: Props) => <Instead {...{ judged, mending }} /> },
  more: {
    name: "More or less",
    of: ({ foreseen: { judged, lots, shelf }, costing, mending }: Props) => <Scaling {...{ judged, costing, lots, shelf, mending }} />,
  },
  fills: {
    name: "Fills",
    of: ({ foreseen: { judged, shelf }, costing, mending }: Props) => <Fill {...{ judged, costing, shelf, mending }} />,
  },
  costs: {
    name: "Costs",
    of: ({ foreseen: { judged, shelf }, costing }: Props) => <Costs {...{ costing, shelf }} lossBp={judged.lossBp} />,
  },
} as const;
type Page = keyof typeof PAGES;

/** Whether there is anything to foresee. */
const adds = ({ unread, foreseen }: Props): boolean => unread === null && foreseen.judged.lines.length > 0;

/**
 * Drawn again only when something of what it is given is another; given late, it never keeps the next key waiting. While something is typed that
 * can't be read yet it stands as it was, pale and out of reach: if it went, what is typed into beneath it would jump away.
 */
export const Foresight = memo(function Foresight(props: Props) {
  const asked = useSearchParams()[0].get("page") ?? "";
  const [page, turn] = useState<Page>(isKeyOf(PAGES, asked) ? asked : "sets");
  const ready = adds(props);
  const stood = useStood(props, props.unread !== null);
  return (
    <Tabs.Root value={page} onValueChange={(p) => turn(p as Page)} className="mt-7">
      <Tabs.List aria-label="What is foreseen" className="boards no-print px-0!">
        {(Object.keys(PAGES) as Page[]).map((p) => (
          <Tabs.Trigger key={p} value={p} className="board">
            {PAGES[p].name}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value={page} className="relative border-t border-rule pt-4">
        {!ready && !adds(stood) && <p className="text-pine-soft">Foreseen once it adds up. {props.unread}</p>}
        {!ready && adds(stood) && (
          <div className="sticky top-4 z-10 h-0">
            <p className="w-fit rounded border border-rule bg-honey-wash px-3 py-1 text-honey">As it stood before. {props.unread}</p>
          </div>
        )}
        {adds(stood) && (
          <div inert={!ready} className={ready ? "" : "opacity-35"}>
            {PAGES[page].of(stood)}
          </div>
        )}
      </Tabs.Content>
    </Tabs.Root>
  );
});
