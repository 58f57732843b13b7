/** What could stand in: for one ingredient, ranked with its reasons and what follows, or for all that has to go, by one press. */
import { FEELS, feelOf } from "#core/firmness/words";
import { usualForm } from "#core/material/facts";
import { micros, type Mg } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams } from "#core/measure/write";
import { replaceAll, standIns, WITHOUT, type Instead as StandsIn, type StandIn, type Without } from "#core/recipe/instead";
import { forScaleUp, inGrams, sayShare, type Judged, type JudgedLine, type Mend } from "#core/recipe/judge/judgement";
import { planTakes, type Shelf } from "#core/stock/shelf";
import { wordList } from "#core/words";
import { useEffect, useMemo, useState } from "react";
import { useFetcher } from "react-router";
import { Button, Choice } from "../../ui/fields/form.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Mending } from "../foresight/mending.ts";

interface Props {
  judged: Judged;
  shelf: Shelf;
  mending: Mending;
}

const AT_ONCE = 8;
const TALLOW = /tallow/i;

export function Instead({ judged, shelf, mending }: Props) {
  const { currency } = useWorkshop();
  const [row, choose] = useState<number | null>(null);
  const [all, showAll] = useState(false);
  const [left, say] = useState<string | null>(null);
  const { data, load } = useFetcher<StandIn[]>();
  const kinds = [...new Set(judged.lines.map((l) => l.kind))].sort().join(" ");
  useEffect(
    () => void load(`/recipes/stand-ins?${new URLSearchParams(kinds.split(" ").map((k) => ["kind", k])).toString()}`),
    [kinds, load],
  );
  const among = useMemo(() => data ?? [], [data]);
  const facts = useMemo(() => new Map(among.map((m) => [m.id, m])), [among]);
  const line = judged.lines.find((l) => l.row === row) ?? judged.lines[0];
  const found = useMemo(
    () => (line && data ? standIns(judged, line, among, facts.get(line.of) ?? { allergen: "", vegan: "", per: null }) : []),
    [judged, line, data, among, facts],
  );
  if (!line) return null;
  if (!inGrams(judged))
    return (
      <p className="text-pine-soft">
        Written by parts or per cent, one line moves the others. Write it in grams first, under More or less.
      </p>
    );
  const entered = (weight: Mg): string => forScaleUp(weight, judged.scale);
  const placed = (s: StandsIn): Mend => ({
    say: `Put ${s.by.name} in the place of ${line.name}`,
    rows: [
      { row: line.row, entered: entered(s.weight), material: s.by.name, form: usualForm(s.by.kind) },
      ...(s.wax ? [{ row: s.wax.row, entered: entered(s.wax.weight) }] : []),
    ],
  });
  const short = new Set(
    planTakes(
      judged.lines.map((l) => ({ of: l.of, amount: l.weight })),
      shelf,
    ).flatMap((p, i) => (p.short > 0 ? [judged.lines[i]!.row] : [])),
  );
  const replace = (done: string, offends: (l: JudgedLine) => boolean, may: (m: StandIn, weight: Mg) => boolean): void => {
    const by = replaceAll(judged, among, facts, offends, may);
    const kindOf = new Map(among.map((m) => [m.name, m.kind]));
    say(by.left.length > 0 ? `Nothing can stand in for ${wordList(by.left)}.` : null);
    if (by.rows.length === 0) return;
    const named = new Map(judged.lines.map((l) => [l.row, l.name]));
    mending.press({
      say: done,
      rows: by.rows.map((r) => ({
        row: r.row,
        entered: entered(r.weight),
        ...(named.get(r.row) === r.material ? {} : { material: r.material, form: usualForm(kindOf.get(r.material)!) }),
      })),
    });
  };
  const without = (Object.keys(WITHOUT) as Without[]).filter((w) =>
    judged.lines.some((l) => facts.has(l.of) && WITHOUT[w].fits(facts.get(l.of)!)),
  );
  const tallow = among.some((m) => TALLOW.test(m.name)) && judged.lines.some((l) => l.sets.as === "fat" && !TALLOW.test(l.name));
  return (
    <div className="space-y-4">
      {data && (without.length > 0 || tallow || short.size > 0) && (
        <div className="flex flex-wrap gap-2" role="group" aria-label="For the whole recipe">
          {without.map((w) => (
            <Button
              key={w}
              small
              onClick={() =>
                replace(
                  `Made it ${WITHOUT[w].say.toLowerCase()}`,
                  (l) => facts.has(l.of) && WITHOUT[w].fits(facts.get(l.of)!),
                  (m) => !WITHOUT[w].fits(m),
                )
              }
            >
              {WITHOUT[w].say}
            </Button>
          ))}
          {tallow && (
            <Button
              small
              onClick={() =>
                replace(
                  "Put tallow for the butters",
                  (l) => l.sets.as === "fat" && !TALLOW.test(l.name),
                  (m) => TALLOW.test(m.name),
                )
              }
            >
              Tallow for the butters
            </Button>
          )}
          {short.size > 0 && (
            <Button
              small
              onClick={() =>
                replace(
                  "Made it from what is on hand",
                  (l) => short.has(l.row),
                  (m, weight) => m.onHand >= weight,
                )
              }
            >
              Make it from what I have
            </Button>
          )}
        </div>
      )}
      {left !== null && (
        <p aria-live="polite" className="font-semibold text-honey">
          {left}
        </p>
      )}
      <Choice
        className="max-w-sm"
        label="In the place of"
        options={judged.lines.map((l) => [String(l.row), `${l.name}, ${grams(l.weight)}`] as const)}
        value={String(line.row)}
        onChange={(e) => choose(Number(e.target.value))}
      />
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
                    <span className="block text-[0.88rem] text-pine-soft">{s.reasons.join(" · ")}</span>
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
                      <span className="block text-[0.88rem]">
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
                    <span className="block text-[0.88rem] whitespace-nowrap text-pine-soft">like {sayShare(s.firm)}</span>
                  </>
                ),
              },
              {
                head: "The batch costs",
                as: "figure",
                cell: (s) =>
                  s.dearer === null
                    ? "—"
                    : s.dearer === 0
                      ? "the same"
                      : `${s.dearer > 0 ? "+ " : "− "}${money(micros(Math.abs(s.dearer)), currency)}`,
              },
              {
                head: "Then",
                plain: true,
                cell: (s) => (
                  <span className="text-[0.9rem]">
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
                  <Button small aria-label={`Use ${s.by.name}`} onClick={() => mending.press(placed(s))}>
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
      <p className="text-[0.88rem] text-pine-soft">
        How it sets is an estimate, and a new material feels and smells its own way: try a small pot first. What is not on the shelf yet is
        added at its name once it stands in the recipe.
      </p>
    </div>
  );
}
