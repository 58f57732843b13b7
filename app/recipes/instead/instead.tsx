/** Substitutes for one ingredient, ranked with reasons and consequences, or for all that has to go, by one press. */
import { FEELS, feelOf } from "#core/firmness/words";
import { mg, micros, type Mg, type Micros } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams, sayShare } from "#core/measure/write";
import { standIns, takesAmounts } from "#core/recipe/instead/instead";
import { ordered, ORDERS, type Order } from "#core/recipe/instead/order";
import { putIn, replaceAll, WITHOUT, type Without } from "#core/recipe/instead/replace";
import { onHandOf, type StandIn } from "#core/recipe/instead/standIn";
import { type Judged, type JudgedLine } from "#core/recipe/judge/judgement";
import { counted, wordList } from "#core/words";
import { useMemo, useState } from "react";
import { Button, Choice } from "../../ui/fields/form.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { useStandIns } from "./useStandIns.ts";
import type { AppliedFix } from "../foresight/suggestedFix.ts";

interface Props {
  judged: Judged;
  mending: AppliedFix;
}

const AT_ONCE = 8;
const isTallow = (m: { name: string }): boolean => /tallow/i.test(m.name);
const offer = (say: string, offends: (l: JudgedLine) => boolean, may: (m: StandIn, weight: Mg) => boolean) => ({ say, offends, may });

/** Against what it costs as it is. */
const sayDearer = (dearer: Micros | null, currency: string): string =>
  dearer === null ? "—" : dearer === 0 ? "the same" : `${dearer > 0 ? "+ " : "− "}${money(micros(Math.abs(dearer)), currency)}`;

export function Instead({ judged, mending }: Props) {
  const { currency } = useWorkshop();
  const [row, choose] = useState<number | null>(null);
  const [order, orderBy] = useState<Order>("all");
  const [all, showAll] = useState(false);
  const [left, say] = useState<string | null>(null);
  const data = useStandIns(judged.lines.map((l) => l.of));
  const line = judged.lines.find((l) => l.row === row) ?? judged.lines[0];
  const ranked = useMemo(() => (line && data ? standIns(judged, line, data) : []), [judged, line, data]);
  const known = useMemo(() => new Map(data?.map((m) => [m.id, m])), [data]);
  const found = useMemo(() => ordered(ranked, order, line && known.get(line.of)), [ranked, order, line, known]);
  if (!line) return null;
  if (!takesAmounts(judged))
    return (
      <p className="text-pine-soft">
        Some of it is written in grams and some by shares, so that one line moves the others. Write it all in grams first, under More or
        less.
      </p>
    );
  const replace = ({ say: done, offends, may }: ReturnType<typeof offer>): void => {
    const { rows, left: open } = replaceAll(judged, data ?? [], offends, may);
    say(open.length > 0 ? `Nothing can stand in for ${wordList(open)}.` : null);
    if (rows.length > 0) mending.press({ say: done, rows });
  };
  const whole = [
    ...(Object.keys(WITHOUT) as Without[]).map((w) => {
      const { say: name, fits } = WITHOUT[w];
      return offer(
        name,
        (l) => known.has(l.of) && fits(known.get(l.of)!),
        (m) => !fits(m),
      );
    }),
    offer("Tallow for the butters", (l) => l.sets.as === "fat" && !isTallow(l), isTallow),
    offer(
      "Make it from what I have",
      (l) => l.short,
      (m, weight) => onHandOf(m) >= weight,
    ),
  ].filter((o) => data?.some((m) => o.may(m, mg(1))) && judged.lines.some(o.offends));
  return (
    <div className="space-y-4">
      {whole.length > 0 && (
        <div className="flex flex-wrap gap-2" role="group" aria-label="For the whole recipe">
          {whole.map((o) => (
            <Button key={o.say} small onClick={() => replace(o)}>
              {o.say}
            </Button>
          ))}
        </div>
      )}
      {left !== null && (
        <p aria-live="polite" className="font-semibold text-honey">
          {left}
        </p>
      )}
      <div className="grid gap-4 sm:grid-cols-[22rem_14rem]">
        <Choice
          label="In the place of"
          options={judged.lines.map((l) => [String(l.row), `${l.name}, ${grams(l.weight)}`] as const)}
          value={String(line.row)}
          onChange={(e) => choose(Number(e.target.value))}
        />
        <Choice
          label="First"
          options={(Object.keys(ORDERS) as Order[]).map((o) => [o, ORDERS[o].say] as const)}
          value={order}
          onChange={(e) => orderBy(e.target.value as Order)}
        />
      </div>
      {!data ? (
        <p className="text-pine-soft">Looking along the shelf …</p>
      ) : found.length === 0 ? (
        <p className="text-pine-soft">Nothing else of its kind is on the shelf or in the library.</p>
      ) : (
        <>
          <Table
            rows={all ? found : found.slice(0, AT_ONCE)}
            by={(s) => s.by.id}
            columns={[
              {
                head: "Instead",
                cell: (s) => (
                  <>
                    {s.by.name}
                    <span className="block text-fine text-pine-soft">{s.reasons.join(" · ")}</span>
                  </>
                ),
              },
              {
                head: "So much",
                as: "weight",
                cell: (s) => (
                  <>
                    {grams(s.weight)}
                    {s.wax && (
                      <span className="block text-fine">
                        and {s.wax.name} {grams(s.wax.weight)}
                      </span>
                    )}
                  </>
                ),
              },
              {
                head: "Sets",
                width: "17%",
                cell: (s) => (
                  <>
                    {FEELS[feelOf(s.firm)].say}
                    <span className="block text-fine whitespace-nowrap text-pine-soft">like {sayShare(s.firm)}</span>
                  </>
                ),
              },
              {
                head: "The batch costs",
                as: "figure",
                cell: (s) => sayDearer(s.dearer, currency),
              },
              { head: "Keeps", as: "figure", cell: (s) => counted(s.months, "month") },
              {
                head: "Then",
                plain: true,
                cell: (s) => (
                  <span className="text-small">
                    {s.worse.map((j) => (
                      <span key={j.key} className={`block ${j.gravity === 3 ? "text-berry" : "text-honey"}`}>
                        {j.say}
                      </span>
                    ))}
                    {s.better.map((j) => (
                      <span key={j.key} className="block text-sage">
                        No longer: {j.say}
                      </span>
                    ))}
                  </span>
                ),
              },
              {
                head: "Use it",
                as: "press",
                cell: (s) => (
                  <Button small aria-label={`Use ${s.by.name}`} onClick={() => mending.press(putIn(judged, line, s))}>
                    Use it
                  </Button>
                ),
              },
            ]}
          />
          {found.length > AT_ONCE && (
            <button type="button" className="pressable" onClick={() => showAll(!all)}>
              {all ? "Only the best" : `${found.length - AT_ONCE} more`}
            </button>
          )}
        </>
      )}
      <p className="text-fine text-pine-soft">
        How it sets is an estimate, and a new material feels and smells its own way: try a small pot first. What is not on the shelf yet is
        added at its name once it is in the recipe.
      </p>
    </div>
  );
}
