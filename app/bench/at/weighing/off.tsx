/** Too much went in, or there isn't enough: what can be done about it, each with what it does. */
import type { Consequence, OffTarget } from "#core/batch/weighing/weighingFixes";
import { FEELS, feelOf } from "#core/firmness/words";
import { mg, type Mg } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams } from "#core/measure/write";
import { fillMix } from "#core/recipe/scale";
import { wordList } from "#core/words";
import type { ReactNode } from "react";
import { percent } from "../../../ui/figures/amounts.tsx";
import { Button } from "../../../ui/fields/form.tsx";
import { useWorkshop } from "../../../ui/workshop.ts";
import type { AtBenchLoaded } from "../loaded.ts";
import { useInstead } from "./useInstead.ts";

/** Less than this nobody feels or smells. */
const FELT = 0.004;
const SMELT = 0.0002;

interface Props {
  of: OffTarget;
  page: AtBenchLoaded;
  line: number;
  /** What went in. */
  weighed: Mg;
  busy: boolean;
  keep: () => void;
  instead: (materialId: number, amount: Mg) => void;
  mend: (intent: "match" | "nextLot") => void;
  back: () => void;
}

/** What comes of it: how it sets and smells, what it costs, and how many it fills. */
function Comes({ of: { total, firm, scent, cost }, page: { recipe, sizes } }: { of: Consequence; page: AtBenchLoaded }) {
  const { currency } = useWorkshop();
  const [before, after] = firm;
  const feels = [FEELS[feelOf(before)].say, FEELS[feelOf(after)].say];
  const fills = total.map(
    (t) =>
      fillMix(
        mg(Math.round(t)),
        recipe.lossBp,
        sizes.map((s, i) => ({ fill: s.fill, units: i === 0 ? null : s.planned })),
      ).units[0]!,
  );
  const changed = [
    Math.abs(after - before) >= FELT &&
      `sets ${after > before ? "harder" : "softer"}, as ${percent(after)} of wax would and not ${percent(before)}${feels[0] === feels[1] ? "" : ` (${feels[1]}, not ${feels[0]})`}`,
    Math.abs(scent[1] - scent[0]) >= SMELT && `scent ${percent(scent[1], 2)} and not ${percent(scent[0], 2)}`,
  ].filter(Boolean);
  const dearer = cost[1] - cost[0];
  return (
    <span className="block text-small text-pine-soft">
      {grams(Math.round(total[1]))} in the pot, enough for {fills[1]} × {sizes[0]?.label}
      {fills[0] !== fills[1] && ` (${fills[1]! > fills[0]! ? "+" : "−"}${Math.abs(fills[1]! - fills[0]!)})`};{" "}
      {Math.abs(dearer) >= 5000 && `${money(Math.abs(Math.round(dearer)), currency)} ${dearer > 0 ? "more" : "less"} of materials; `}
      {changed.length > 0 ? changed.join("; ") : "sets and smells as it was written"}.
    </span>
  );
}

function Choice({ say, does, busy, children }: { say: string; does: () => void; busy: boolean; children: ReactNode }) {
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 rounded bg-sheet px-3 py-2">
      <Button className="min-w-52" onClick={does} disabled={busy}>
        {say}
      </Button>
      <span className="min-w-0 flex-1 basis-64 text-small text-pine-soft">{children}</span>
    </li>
  );
}

/** What is off, and by how much. */
function Panel({ by, name, children }: { by: number; name: string; children: ReactNode }) {
  const over = by > 0;
  return (
    <div
      role="group"
      aria-label={over ? "Too much went in" : "There isn't enough"}
      className={`mt-2 rounded border-l-4 px-4 py-3 ${over ? "border-berry bg-berry-wash" : "border-honey bg-honey-wash"}`}
    >
      <p className={`text-large font-semibold ${over ? "text-berry" : "text-honey"}`}>
        {grams(Math.abs(by))} of {name} {over ? "too much" : "short"}
      </p>
      <ul className="mt-2 grid gap-2">{children}</ul>
    </div>
  );
}

export function Off({ of: { by, keep, match }, page, line, weighed, busy, ...does }: Props) {
  const over = by > 0;
  const instead = useInstead(page, line, weighed);
  const name = (i: number): string => page.takes[i]!.material;
  const short = match.short.map((s) => `${grams(s.by)} of ${name(s.line)}`);
  const off = match.off.map((m) => `${grams(m.by)} of ${name(m.line)}`);
  return (
    <Panel by={by} name={name(line)}>
      {over ? (
        <Choice say={`Scoop ${grams(by)} back`} does={does.back} busy={busy}>
          As long as it lies on top and nothing has melted. Then everything is as it was written.
        </Choice>
      ) : (
        <>
          <Choice say="Weigh on" does={does.back} busy={busy}>
            There is more of it: put the rest on the scale.
          </Choice>
          <Choice say="The rest from the next lot" does={() => does.mend("nextLot")} busy={busy}>
            This lot is empty: what is on the scale counts, and {grams(-by)} come out of the one to use next.
          </Choice>
        </>
      )}
      {instead.map((s) => (
        <Choice
          key={s.materialId}
          say={`${grams(s.amount)} of ${s.name} instead`}
          does={() => does.instead(s.materialId, s.amount)}
          busy={busy}
        >
          <Comes of={s} page={page} />
          {s.allergen && <span className="block font-semibold text-honey">Names {s.allergen.toLowerCase()} on the label.</span>}
        </Choice>
      ))}
      <Choice
        say={over ? "Make the rest to match" : "A smaller batch to match"}
        does={() => does.mend("match")}
        busy={busy || short.length > 0 || (!over && off.length > 0)}
      >
        <Comes of={match} page={page} />
        {off.length > 0 && (
          <span className="block font-semibold text-pine">
            {over ? `To add to what is weighed already: ${wordList(off)}.` : `In the pot already, and then too much: ${wordList(off)}.`}
          </span>
        )}
        {short.length > 0 && <span className="block font-semibold text-berry">Too little on the shelf: {wordList(short)} missing.</span>}
      </Choice>
      <Choice say="Leave it as it is" does={does.keep} busy={busy}>
        <Comes of={keep} page={page} />
      </Choice>
    </Panel>
  );
}

interface InPartProps {
  name: string;
  by: number;
  /** Of the part, as it would be saved. */
  share: number;
  busy: boolean;
  keep: () => void;
  back: () => void;
}

/** Off in a part: the rest of the pot is as it is, so that it is corrected on the scale, or left. */
export function OffInPart({ name, by, share, busy, keep, back }: InPartProps) {
  const over = by > 0;
  return (
    <Panel by={by} name={name}>
      <Choice say={over ? `Scoop ${grams(by)} back` : "Weigh on"} does={back} busy={busy}>
        {over ? "As long as it isn’t stirred in. Then it is as it was planned." : "There is more of it: put the rest on the scale."}
      </Choice>
      <Choice say="Leave it as it is" does={keep} busy={busy}>
        {percent(share, 2)} of the part then.
      </Choice>
    </Panel>
  );
}
