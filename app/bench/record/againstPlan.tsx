/** A poured batch beside its plan: what was weighed, filled, lost, how long it took and what one cost, each with how far it was off. */
import { gramsIn } from "#core/measure/write";
import { money } from "#core/measure/money";
import type { PourResult } from "#core/batch/finishing/result";
import { readSteps } from "#core/recipe/method";
import type { Plan } from "#db/bench/planning/plan";
import type { BenchEvent } from "#db/bench/weighing/events";
import type { BatchSheet } from "#db/bench/read";
import { percent } from "../../ui/figures/amounts.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import { useWorkshop } from "../../ui/workshop.ts";

interface Row {
  what: string;
  plan: string;
  was: string;
  off: string;
}

/** How far off, with its sign; nothing where it is as planned. */
const off = (plan: number, was: number, say: (n: number) => string, least = 0): string =>
  Math.abs(was - plan) <= least ? "" : `${was > plan ? "+" : "−"}${say(Math.abs(was - plan))}`;

interface Props {
  sheet: BatchSheet;
  plan: Plan & { result: PourResult };
  was: PourResult;
  events: readonly BenchEvent[];
}

/** What was planned, what it came to and how far off that is, line by line. */
export function rowsAgainstPlan({ batch, sizes, takes }: BatchSheet, plan: Props["plan"], was: PourResult, currency: string): Row[] {
  const weighed = takes.reduce((a, t) => a + (t.weighed ?? 0), 0);
  const weight = (what: string, planned: number, really: number): Row => ({
    what,
    plan: gramsIn(1)(planned),
    was: gramsIn(1)(really),
    off: off(planned, really, gramsIn(1), 50),
  });
  const points = (n: number): string => `${(n * 100).toFixed(1)} points`;
  const filled = sizes.filter((s) => s.units);
  return [
    weight("Weighed in", plan.weighed, weighed),
    ...sizes.map((s) => ({
      what: `Filled, ${s.label}`,
      plan: String(s.planned),
      was: String(s.units ?? 0),
      off: off(s.planned, s.units ?? 0, String),
    })),
    weight("Left in the jug", plan.leftover, batch.leftover ?? 0),
    weight("Lost in pot and jug", plan.result.lost, was.lost),
    { what: "Yield", plan: percent(plan.result.yield), was: percent(was.yield), off: off(plan.result.yield, was.yield, points, 0.0005) },
    ...(batch.minutes
      ? [
          {
            what: "Minutes of work",
            plan: plan.minutes.toFixed(0),
            was: String(batch.minutes),
            off: off(Math.round(plan.minutes), batch.minutes, String),
          },
        ]
      : []),
    ...(plan.costed ? plan.productIds : []).flatMap((id, i) => {
      const one = was.perUnit[filled.findIndex((s) => s.productId === id)];
      const planned = plan.result.perUnit[i]!.total;
      if (!one) return [];
      const say = (n: number): string => money(n, currency);
      const label = filled.length > 1 ? `Cost of one, ${sizes.find((s) => s.productId === id)!.label}` : "Cost of one";
      return [{ what: label, plan: say(planned), was: say(one.total), off: off(planned, one.total, say, 5000) }];
    }),
  ];
}

export function AgainstPlan({ sheet, plan, was, events }: Props) {
  const { currency } = useWorkshop();
  const { batch, recipe } = sheet;
  return (
    <Part title="Against the plan">
      <Table
        rows={rowsAgainstPlan(sheet, plan, was, currency)}
        by={(r) => r.what}
        columns={[
          { head: "Of this batch", cell: (r) => r.what },
          { head: "Planned", as: "figure", cell: (r) => r.plan },
          { head: "Was", as: "figure", className: "font-semibold", cell: (r) => r.was },
          { head: "Off by", as: "figure", className: "text-pine-soft", cell: (r) => r.off },
        ]}
      />
      <StepTimes method={recipe.method} events={events} />
      {plan.costed && (
        <p className="mt-2 text-small text-pine-soft">
          {batch.minutes
            ? "Both at what these lots cost and what an hour cost then: how it went is all that tells them apart."
            : "Both at what these lots cost, and without work: nobody said how long it took."}
        </p>
      )}
    </Part>
  );
}

/** How long each step took that was ticked off at the bench: from the one before it, whatever that was. */
function StepTimes({ method, events }: { method: string; events: readonly BenchEvent[] }) {
  const stood = events.filter((e) => e.struckAt === null);
  const done = stood.filter((e) => e.kind === "step");
  const steps = readSteps(method);
  const rows = done.flatMap((e, i) => {
    const step = e.step === null ? undefined : steps[e.step];
    const before = i > 0 ? done[i - 1]! : stood.find((x) => x.id < e.id);
    return step && before ? [{ ...step, id: e.id, took: (new Date(e.at).getTime() - new Date(before.at).getTime()) / 60_000 }] : [];
  });
  if (rows.length === 0) return null;
  return (
    <div className="mt-4">
      <Table
        rows={rows}
        by={(r) => r.id}
        columns={[
          { head: "Step", cell: (r) => r.text },
          { head: "Hands, planned", as: "figure", cell: (r) => (r.minutes === null ? "" : `${r.minutes} min`) },
          { head: "From the one before", as: "figure", className: "font-semibold", cell: (r) => `${r.took.toFixed(0)} min` },
        ]}
      />
    </div>
  );
}
