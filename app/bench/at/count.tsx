/** Filling by count: how many of each size are filled, what that comes to, and for how many there is left. Kept at each press. */
import { baseIn, FILL_TOLERANCE } from "#core/batch/finishing/result";
import { mg, mulDiv, sum, type Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { counted, wordList } from "#core/words";
import { Button, Problem } from "../../ui/fields/form.tsx";
import { Tin } from "../../ui/figures/drawings.tsx";
import type { AtBenchLoaded } from "./loaded.ts";
import { useDid } from "./useDid.ts";

type Size = AtBenchLoaded["sizes"][number];

/** So many at one press, besides one: a tray of them. */
const TRAY = 6;

/** What is left in the pot or the jug of a size, and how much of it will stay there. */
function leftFor({ sizes, takes, recipe }: AtBenchLoaded, size: Size): { left: Mg; sticks: Mg } {
  const own = (sizeId: number | null): Mg => sum(takes.flatMap((t) => (t.sizeId === sizeId ? [t.weighed ?? mg(0)] : [])));
  const parts = sizes.filter((s) => s.partOf !== null);
  const filled = (all: readonly Size[]): number => all.reduce((a, s) => a + s.units * s.fill, 0);
  // A part is poured out of what was ladled off for it; the rest of the pot is everybody else's.
  const ladled = (s: Size): number => s.ladled ?? baseIn({ units: s.planned, fill: s.fill, added: own(s.id) });
  const all = size.partOf === null ? own(null) - parts.reduce((a, s) => a + ladled(s), 0) : ladled(size) + own(size.id);
  const gone = filled(size.partOf === null ? sizes.filter((s) => s.partOf === null) : [size]);
  const sticks = mulDiv(Math.max(0, all), recipe.lossBp, 10_000);
  return { left: mg(Math.max(0, all - gone)), sticks: mg(sticks) };
}

export function Count({ page, size }: { page: AtBenchLoaded; size: Size }) {
  const did = useDid(page.batch.id);
  const { left, sticks } = leftFor(page, size);
  const more = Math.max(0, Math.floor((left - sticks) / size.fill + FILL_TOLERANCE));
  const count = (units: number): void => did.keep({ intent: "filled", sizeId: size.id, units, was: size.units });
  const sizes = page.sizes.filter((s) => s.units > 0);
  return (
    <section aria-label="Filled so far" className="mt-4 border-y border-rule py-3">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <Tin share={Math.min(1, size.units / Math.max(1, size.planned))} label={`${size.units} of ${size.planned} filled`} />
        <p className="font-mono text-display leading-none font-bold" role="status">
          {size.units}
          <span className="font-sans text-lead font-normal text-pine-soft"> of {size.planned} filled</span>
        </p>
        <span className="flex flex-wrap gap-2">
          <Button className="min-w-20 text-title font-bold" disabled={did.busy} onClick={() => count(size.units + 1)}>
            +1
          </Button>
          <Button className="text-large" disabled={did.busy} onClick={() => count(size.units + TRAY)}>
            +{TRAY}
          </Button>
          <Button
            className="text-large"
            aria-label="One fewer"
            disabled={did.busy || size.units === 0}
            onClick={() => count(size.units - 1)}
          >
            −1
          </Button>
        </span>
      </div>
      <p className="mt-2">
        {sizes.length > 0 && (
          <>
            Filled {wordList(sizes.map((s) => `${s.units} × ${s.label}`))},{" "}
            <strong className="font-mono">{grams(sum(sizes.map((s) => mg(s.units * s.fill))))}</strong> together.{" "}
          </>
        )}
        <strong className="font-mono">{grams(left)}</strong> left{sticks > 0 && `, of which ${grams(sticks)} will stick`}:{" "}
        {more > 0 ? `enough for ${counted(more, "more", "more")}` : "the odd last one, a tester or a spare mould"}.
      </p>
      <Problem say={did.problem?.say} />
    </section>
  );
}
