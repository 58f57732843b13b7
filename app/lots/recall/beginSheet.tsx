/** The sheet a recall is begun on; beside it, what it reaches as typed so far. */
import type { Untraced as Lots } from "#db/listsIn/finished";
import { type Account } from "#core/lot/recall";
import { WHERE, type Where } from "#core/ledger/whereabouts";
import type { NamedLot } from "#db/lots/trace";
import { useEffect } from "react";
import { Link, useFetcher } from "react-router";
import { useSheet, type Opened } from "../../forms/useSheet.ts";
import { LotTag, When } from "../../ui/figures/amounts.tsx";
import { Figure, HowLine, Reckoner } from "../../ui/figures/reckoner.tsx";
import { Area, Problem } from "../../ui/fields/form.tsx";
import { enterGoesOn } from "../../ui/fields/enter.ts";
import { Caution, Heading, Part, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";
import { Untraced } from "./untraced.tsx";
import { nameOf } from "../lotColumns.tsx";

interface Counted {
  name: string;
  units: number;
}
export interface Chosen {
  ids: number[];
  meant: NamedLot[];
  untraced: Lots;
  reach: { lots: number; units: Account; people: Counted[]; markets: Counted[]; jars: number; batches: number };
}

/** Where units are, in the words of a figure. */
export const WHERE_SAID: Record<Where, string> = {
  named: "In orders, by name",
  stall: "Sold or given at stalls",
  handed: "Handed out",
  ended: "Thrown away, sent back",
  lost: "Can’t be found",
};

const TO_DO = "Please stop using it and put it aside. Bring it back or write to us: you get your money back.";

/** What the lots that are ticked reach; others than the page came with are asked for. */
function useReach(first: Chosen, lots: readonly string[]): Chosen["reach"] | null {
  const { data, load } = useFetcher<{ chosen: Chosen | null }>();
  const same = (c: Chosen | null | undefined): boolean => c?.ids.length === lots.length && c.ids.every((id) => lots.includes(String(id)));
  const found = [first, data?.chosen].find(same) ?? null;
  const numbers = first.meant.filter((l) => lots.includes(String(l.id))).map((l) => `lot=${encodeURIComponent(l.number)}`);
  const ask = found || numbers.length === 0 ? null : `/lots/recalls/new?${numbers.join("&")}`;
  useEffect(() => {
    if (ask) void load(ask);
  }, [ask, load]);
  return found?.reach ?? null;
}

export function BeginSheet({ chosen, rehearse, opened }: { chosen: Chosen; rehearse: boolean; opened: Opened }) {
  const sheet = useSheet({ lots: chosen.ids.map(String), reason: "", toDo: TO_DO, rehearsal: rehearse }, opened, {
    draft: "Recalling a lot",
    // Which lots it is about is chosen again, in sight.
    only: ["reason", "toDo"],
  });
  const { values: v, register, setValue } = sheet;
  const { errors } = sheet.formState;
  const reach = useReach(chosen, v.lots);
  const units = reach?.units;
  return (
    <form onSubmit={(e) => e.preventDefault()} onKeyDown={enterGoesOn}>
      <Heading
        title={v.rehearsal ? "Rehearse a recall" : "Recall a lot"}
        about={
          v.rehearsal
            ? "Everything as in a real one, but nothing is held and nobody is told. The clock runs from the press."
            : "Everything these lots are in goes on hold at once. Then you tell people, one after the other."
        }
      >
        <Link to="/lots/recalls" className="act">
          Leave
        </Link>
        <Send sheet={sheet} press={() => void sheet.send()()}>
          {v.rehearsal ? "Begin the rehearsal" : "Hold them all and begin"}
        </Send>
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner title="What it reaches">
            <Figure label="Units made of it" big value={units ? units.came : "…"} />
            <Figure label="Still here" value={units ? units.here : "…"} />
            {WHERE.map((w) => (
              <Figure
                key={w}
                label={WHERE_SAID[w]}
                value={units ? units[w] : "…"}
                tone={w === "lost" && units && units.lost > 0 ? "bad" : undefined}
                how={
                  w === "named" && reach && reach.people.length > 0
                    ? reach.people.map((p) => <HowLine key={p.name} label={p.name} value={p.units} />)
                    : w === "stall" && reach && reach.markets.length > 0
                      ? reach.markets.map((m) => <HowLine key={m.name} label={m.name} value={m.units} />)
                      : undefined
                }
              />
            ))}
            <Figure label="Lots in all" value={reach ? reach.lots : "…"} />
            {reach && reach.jars > 0 && <Figure label="Jars still steeping" value={reach.jars} tone="warn" />}
            {reach && reach.batches > 0 && <Figure label="Batches on the bench" value={reach.batches} tone="warn" />}
          </Reckoner>
        }
      >
        <Sheet>
          <Untraced lots={chosen.untraced} />
          <SheetSays sheet={sheet} names={{ reason: "What is wrong", toDo: "What people should do" }} />
          <fieldset className="flex flex-wrap gap-x-8 gap-y-2">
            <legend className="sr-only">For real, or a rehearsal</legend>
            {[false, true].map((is) => (
              <label key={String(is)} className="flex min-h-11 items-center gap-2">
                <input type="radio" checked={v.rehearsal === is} onChange={() => setValue("rehearsal", is, { shouldDirty: true })} />
                {is ? "A rehearsal" : "For real"}
              </label>
            ))}
          </fieldset>
          <Part title="Begins with">
            <ul className="divide-y divide-rule border-y border-rule">
              {chosen.meant.map((l) => (
                <li key={l.id}>
                  <label className="grid min-h-11 grid-cols-[auto_auto_minmax(0,1fr)] items-center gap-x-3 gap-y-0.5 py-1.5">
                    <input
                      type="checkbox"
                      value={String(l.id)}
                      defaultChecked={v.lots.includes(String(l.id))}
                      {...register("lots")}
                      aria-label={`${l.name}, lot ${l.number}`}
                    />
                    <LotTag lot={l} plain />
                    <span className="max-sm:col-span-2 max-sm:col-start-2">
                      {nameOf(l)}
                      <span className="text-pine-soft">
                        {l.supplier && ` from ${l.supplier}`}
                        {l.supplierLot && `, their lot ${l.supplierLot}`}
                        {l.productId ? ", poured " : ", since "}
                        <When day={l.arrived} />
                      </span>
                    </span>
                  </label>
                </li>
              ))}
            </ul>
            {chosen.meant.length > chosen.ids.length && (
              <p className="mt-1.5 text-small text-pine-soft">
                Those not ticked are of the same supplier’s lot, or out of the same pot. Tick those that are meant as well.
              </p>
            )}
            <Problem say={(errors.lots as { message?: string } | undefined)?.message} />
          </Part>
          <div className="mt-6 grid gap-4">
            <Area
              label="What is wrong"
              hint="As people will read it: what was found, by whom, and what it may do."
              rows={2}
              {...register("reason")}
              problem={errors.reason?.message}
            />
            <Area label="What people should do" rows={2} {...register("toDo")} problem={errors.toDo?.message} />
          </div>
          <div className="mt-5">
            <Caution>
              In many places an unsafe cosmetic, or somebody hurt by one, has to be reported to an authority, sometimes within days. Ask
              yours, or somebody licensed to advise you: this sheet tells nobody by itself.
            </Caution>
          </div>
        </Sheet>
      </SideBySide>
    </form>
  );
}
