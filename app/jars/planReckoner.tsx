/** What a planned jar comes to, live: grams, oil back, cost, when it is ready, whether that suits, and what to mind. */
import { JAR_FILLS } from "#core/infusion/amounts";
import { METHODS, type MethodId } from "#core/infusion/methods";
import type { Warning } from "#core/infusion/warnings";
import { grams } from "#core/measure/write";
import { writeNumber } from "#core/numbers";
import { money } from "#core/measure/money";
import { sayFullDay } from "#core/when";
import { counted, wordList } from "#core/words";
import { PerUnit, percent, When } from "../ui/figures/amounts.tsx";
import { Button } from "../ui/fields/form.tsx";
import { Figure, HowLine, Reckoner } from "../ui/figures/reckoner.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { waitDays, type JarPlan } from "#core/infusion/plan";

const TONES = {
  never: "border-berry bg-berry-wash text-berry",
  reason: "border-berry bg-berry-wash text-berry",
  mind: "border-honey bg-honey-wash text-honey",
} as const;
const LEADS = { never: "Don't: ", reason: "Needs a reason: ", mind: "" } as const;

/** A warning with why, and what to do instead. */
export function WarningNote({ warning: w }: { warning: Warning }) {
  return (
    <div className={`rounded border-l-4 px-3 py-2 text-small ${TONES[w.severity]}`}>
      <p className="font-semibold">
        {LEADS[w.severity]}
        {w.why}
      </p>
      <p>{w.instead}</p>
    </div>
  );
}

function Wished({ plan, pick }: { plan: JarPlan; pick: (m: MethodId) => void }) {
  if (plan.wished === null || plan.suits === null) return null;
  return (
    <div className="py-2">
      <Figure
        label="For the day it is wanted"
        value={plan.suits === "well" ? "in good time" : plan.suits === "just" ? "just usable" : "too late"}
        tone={plan.suits === "well" ? "good" : plan.suits === "just" ? "warn" : "bad"}
      />
      {plan.suits !== "well" && (
        <div className="text-small text-pine-soft">
          {plan.inTime.length > 0 ? (
            <>
              <p>By {sayFullDay(plan.wished)} these still make it:</p>
              <p className="mt-1 flex flex-wrap gap-1.5">
                {plan.inTime.map((m) => (
                  <Button key={m} small onClick={() => pick(m)}>
                    {METHODS[m].label}
                  </Button>
                ))}
              </p>
            </>
          ) : (
            <p>No method makes it by {sayFullDay(plan.wished)}.</p>
          )}
        </div>
      )}
    </div>
  );
}

interface Props {
  plan: JarPlan;
  unread: string | null;
  pick: (m: MethodId) => void;
}

export function PlanReckoner({ plan, unread, pick }: Props) {
  const { currency } = useWorkshop();
  const { amounts: a, expected, cost } = plan;
  const herbs = plan.parts.filter((p) => p.role === "herb");
  const carriers = plan.parts.filter((p) => p.role === "carrier");
  const short = plan.parts.filter((p) => p.qty !== null && p.qty > p.lot.onHand);
  const from = [...new Set(herbs.map((h) => h.keeping!.from))];
  return (
    <Reckoner unread={unread}>
      <Figure
        label="Herb"
        value={a ? grams(a.herb) : "—"}
        how={a && herbs.map((h) => <HowLine key={h.material.id} label={h.material.name} value={grams(h.qty!)} />)}
      />
      <Figure
        label="Oil"
        value={a ? grams(a.oil) : "—"}
        how={a && carriers.map((c) => <HowLine key={c.material.id} label={c.material.name} value={grams(c.qty!)} />)}
      />
      <Figure
        label="Herb to oil"
        value={a ? `1 : ${writeNumber(a.ratio, 0, a.ratio < 10 ? 1 : 0)}` : "—"}
        how={<p>By weight. Half an ounce of petals to sixteen of oil is 1 : 32; 1 : 10 to 1 : 5 is strong.</p>}
      />
      {a && (
        <Figure
          label="Fills"
          value={`${writeNumber(a.fillMl, 0, 0)} mL`}
          tone={plan.vesselMl !== null && a.fillMl > plan.vesselMl ? "bad" : undefined}
          how={
            <>
              <p>Oil and the herb itself, once the air is out.</p>
              {a.looseMl !== null && <HowLine label="Loose herb alone" value={`${writeNumber(a.looseMl, 0, 0)} mL`} />}
              {plan.vesselMl !== null && <HowLine label="Jar to the brim" value={`${writeNumber(plan.vesselMl, 0, 0)} mL`} />}
              {JAR_FILLS.map(([share, say]) => (
                <HowLine key={share} label={say} value={`${share} %`} />
              ))}
            </>
          }
        />
      )}
      <Figure
        label="Oil back"
        big
        value={expected !== null ? grams(expected, 0) : "—"}
        how={
          expected !== null &&
          a && (
            <>
              {herbs.map((h) => (
                <HowLine
                  key={h.material.id}
                  label={`${h.material.name} keeps ${writeNumber(h.keeping!.perGram, 1, 2)} g a gram`}
                  value={`− ${grams(h.qty! * h.keeping!.perGram, 0)}`}
                />
              ))}
              <HowLine label="Of what goes in" value={percent(expected / a.oil, 0)} />
              <p>
                {from.includes("own strainings")
                  ? `From ${counted(Math.max(...herbs.map((h) => h.keeping!.count)), "straining")} of your own.`
                  : from.includes("own figure")
                    ? "From the figure you gave on the herb's sheet."
                    : "Common practice, through cloth and not pressed. Your own strainings will count instead."}
              </p>
            </>
          )
        }
      />
      {short.map((p) => (
        <Figure key={p.lot.id} label={`${p.lot.number} has too little`} value={`${grams(p.qty! - p.lot.onHand)} short`} tone="bad" />
      ))}
      <Figure
        label="Expected cost"
        value={cost !== null && expected ? <PerUnit cost={{ value: cost, per: expected }} measured="weight" /> : "—"}
        how={
          cost !== null && (
            <>
              <HowLine label="Herb and oil" value={money(cost, currency)} />
              <p>All of it falls on the oil that comes back.</p>
            </>
          )
        }
      />
      <Figure
        label="At its best"
        value={<When day={plan.ready.best} />}
        how={
          <>
            <HowLine label="At the earliest" value={<When day={plan.ready.earliest} />} />
            <HowLine label="Best" value={waitDays(plan) === 0 ? "the same day" : `after ${counted(waitDays(plan), "day")}`} />
            <HowLine label="No later than" value={<When day={plan.ready.latest} />} />
            <p>{METHODS[plan.method].how}</p>
          </>
        }
      />
      <Wished plan={plan} pick={pick} />
      {plan.warnings.length > 0 && (
        <div className="space-y-2 py-3" aria-label={`Mind: ${wordList(plan.warnings.map((w) => w.code))}`} role="group">
          {plan.warnings.map((w, i) => (
            <WarningNote key={`${w.code}${i}`} warning={w} />
          ))}
        </div>
      )}
    </Reckoner>
  );
}
