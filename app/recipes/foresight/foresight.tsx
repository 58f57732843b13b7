/**
 * What to expect before anything is melted, a page for each question. Until one is opened each says in a line what it would say; a page is
 * worked out only while it is open.
 */
import type { MaterialChoice } from "#core/recipe/written";
import { isKeyOf } from "#core/objects";
import { mindedOf } from "#core/material/minded";
import { Tabs } from "radix-ui";
import { memo, useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import { useSearchParams } from "react-router";
import type { Fitted } from "#core/firmness/fit";
import type { FeltProps } from "../felt/felt.tsx";
import type { Costing } from "../costing.ts";
import type { RecipeTexts } from "../recipeTexts.ts";
import type { Foreseen } from "./foreseen.ts";
import { useLastKnown } from "../../names/useLookup.ts";
import { Costs } from "../cost/costs.tsx";
import { Fill } from "../fill/fill.tsx";
import { Instead } from "../instead/instead.tsx";
import { Mind } from "../../ui/sheet/mind.tsx";
import { Keeps } from "./keeping.tsx";
import type { AppliedFix } from "./suggestedFix.ts";
import { Scaling } from "./scaling.tsx";
import { Scent } from "./scent.tsx";
import { Setting } from "./setting.tsx";
import { useInShort } from "./inShort.ts";

interface Props {
  foreseen: Foreseen;
  costing: Costing;
  materials: readonly MaterialChoice[];
  form: UseFormReturn<RecipeTexts>;
  mending: AppliedFix;
  learned: Fitted;
  /** Finger tests of a saved recipe. */
  felt: FeltProps | null;
  /** What prevents it from adding up. */
  unread: string | null;
}

/** A page, and what is on it. */
const PAGES = {
  sets: {
    name: "Sets",
    of: ({ foreseen: { judged }, ...p }: Props) => <Setting judged={judged} {...p} />,
  },
  scent: { name: "Scent", of: ({ foreseen: { judged }, ...p }: Props) => <Scent judged={judged} {...p} /> },
  mind: {
    name: "Cautions",
    of: ({ foreseen: { judged } }: Props) => <Mind of={mindedOf(judged.lines)} />,
  },
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
 * Drawn again only when something of what it is given is another; given late, it never delays the next key. While something is typed that
 * can't be read yet it stays as it was, pale and out of reach: if it went, the field beneath it would jump away.
 */
export const Foresight = memo(function Foresight(props: Props) {
  const asked = useSearchParams()[0].get("page") ?? "";
  const [page, turn] = useState<Page | "">(isKeyOf(PAGES, asked) ? asked : "");
  const lines: Record<Page, string> = useInShort(props);
  const ready = adds(props);
  const stood = useLastKnown(props, props.unread !== null);
  return (
    <Tabs.Root value={page} onValueChange={(p) => turn(p as Page)} className="mt-7">
      <div className="no-print flex flex-wrap items-end justify-between gap-x-4">
        <Tabs.List
          aria-label="What to expect"
          className={page === "" ? "w-full divide-y divide-rule border-y border-rule" : "boards px-0!"}
        >
          {(Object.keys(PAGES) as Page[]).map((p) => (
            <Tabs.Trigger
              key={p}
              value={p}
              aria-label={PAGES[p].name}
              className={page === "" ? "flex w-full cursor-pointer items-baseline gap-4 py-2 text-left hover:bg-honey-wash" : "board"}
            >
              <span className={page === "" ? "w-32 flex-none font-display text-lead" : ""}>{PAGES[p].name}</span>
              {page === "" && <span className="min-w-0 text-pine-soft">{lines[p]}</span>}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {page !== "" && (
          <button type="button" className="pressable pb-2 text-small" aria-label="Fold it away" onClick={() => turn("")}>
            Fold
          </button>
        )}
      </div>
      <Tabs.Content value={page} hidden={page === ""} className="relative border-t border-rule pt-4">
        {!ready && !adds(stood) && <p className="text-pine-soft">Shown once it adds up. {props.unread}</p>}
        {!ready && adds(stood) && (
          <div className="sticky top-4 z-10 h-0">
            <p className="w-fit rounded border border-rule bg-honey-wash px-3 py-1 text-honey">As it was before. {props.unread}</p>
          </div>
        )}
        {adds(stood) && (
          <div inert={!ready} className={ready ? "" : "opacity-35"}>
            {page !== "" && PAGES[page].of(stood)}
          </div>
        )}
      </Tabs.Content>
    </Tabs.Root>
  );
});
