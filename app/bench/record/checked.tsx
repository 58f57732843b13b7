/** What follows pouring: how long it sets, the check once it is cold, and what it found. */
import { Link } from "react-router";
import { SPOON } from "#core/batch/finishing/spoon";
import { amiss, CLOSURES, FACES, SCENTS, VERDICTS, WAITS } from "#core/batch/finishing/check";
import { wordList } from "#core/words";
import type { Check } from "#db/bench/finishing/check";
import type { BenchEvent } from "#db/bench/weighing/events";
import type { BatchSheet } from "#db/bench/read";
import { useState } from "react";
import { tokenFor, useSheet, type Opened } from "../../forms/useSheet.ts";
import { Button, Choice, Problem, Text } from "../../ui/fields/form.tsx";
import { When } from "../../ui/figures/amounts.tsx";
import { TimeOfDay } from "../../ui/figures/timeOfDay.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";

/** So that this sheet's act has its own token on the record. */
const APART = 79;

interface Props {
  sheet: BatchSheet;
  checks: readonly Check[];
  events: readonly BenchEvent[];
  opened: Opened;
}

export function Checked({ sheet, checks, events, opened }: Props) {
  const [again, check] = useState(false);
  const units = sheet.sizes.reduce((a, s) => a + (s.units ?? 0), 0);
  const sets = events.find((e) => e.kind === "set" && e.struckAt === null && e.endedAt === null);
  // Asked by itself while it is fresh or waits for it; of what was poured long ago only when wanted.
  const fresh = events.some((e) => e.kind === "set" && e.struckAt === null) || sheet.sizes.some((s) => s.lot?.holdReason === WAITS);
  const asks = again || (checks.length === 0 && fresh);
  return (
    <>
      {checks.length > 0 && (
        <Part title="Checked">
          <ul className="divide-y divide-rule border-y border-rule">
            {checks.map((c) => (
              <li key={c.id} className="flex flex-wrap items-baseline gap-x-3 gap-y-0.5 py-1.5">
                <strong className={c.verdict === "hold" ? "text-berry" : "text-sage"}>{VERDICTS[c.verdict]}</strong>
                <span className="min-w-0 flex-1 basis-72">
                  {[wordList(amiss(c, units)) || "nothing amiss", `${c.labelled} of ${units} labelled`, c.note].filter(Boolean).join("; ")}
                </span>
                <span className="flex flex-wrap items-baseline gap-x-2 text-small text-pine-soft">
                  <When day={c.day} /> <TimeOfDay at={c.at} /> {c.who}
                </span>
              </li>
            ))}
          </ul>
          {checks[0]!.verdict === "hold" && <MeltsDown sizes={sheet.sizes} />}
        </Part>
      )}
      <section className="no-print mt-7">
        {sets && <Sets sets={sets} opened={opened} />}
        {asks ? (
          <Part title={checks.length > 0 ? "Check again" : "Check it"}>
            <CheckSheet key={checks.length} units={units} opened={opened} />
          </Part>
        ) : (
          <Button small onClick={() => check(true)}>
            {checks.length > 0 ? "Check again" : "Check it"}
          </Button>
        )}
      </section>
    </>
  );
}

/** What is held back for how it set goes into another pot. */
function MeltsDown({ sizes }: Pick<BatchSheet, "sizes">) {
  const lots = sizes.flatMap((s) => (s.lot && s.lot.onHand > 0 ? [s.lot] : []));
  if (lots.length === 0) return null;
  return (
    <p className="no-print mt-2">
      Too soft, too hard, grainy? Melt it down on its lot’s page, and pour it again:{" "}
      {lots.map((l, i) => (
        <span key={l.id}>
          {i > 0 && ", "}
          <Link to={`/lots/${encodeURIComponent(l.number)}`} className="font-mono underline underline-offset-4">
            {l.number}
          </Link>
        </span>
      ))}
      .
    </p>
  );
}

/** Until when it is left alone. */
function Sets({ sets, opened }: { sets: BenchEvent; opened: Opened }) {
  const sheet = useSheet({}, { ...opened, token: tokenFor(opened.token, APART + 1) });
  const until = new Date(new Date(sets.at).getTime() + (sets.minutes ?? 0) * 60_000);
  return (
    <p className="mb-5 flex flex-wrap items-center gap-x-4 gap-y-2 rounded bg-honey-wash px-4 py-2">
      <span className="min-w-0 flex-1 basis-72">
        <strong className="text-honey">
          It sets. Leave it alone until <TimeOfDay at={until} />
        </strong>{" "}
        at the earliest, then {sets.note}. Moved while it sets its face is spoilt; capped or wrapped warm, it sweats.
      </span>
      <Button small disabled={sheet.busy} onClick={() => void sheet.send("capped")()}>
        It is done
      </Button>
    </p>
  );
}

function CheckSheet({ units, opened }: { units: number; opened: Opened }) {
  const sheet = useSheet(
    { face: "smooth", firm: "", scent: "right", closes: "right", labelled: String(units), note: "" },
    { ...opened, token: tokenFor(opened.token, APART) },
  );
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send("release")}>
      <div className="grid gap-4 sm:grid-cols-2">
        <Choice label="Its face" options={Object.entries(FACES)} {...sheet.register("face")} />
        <Choice
          label="How firm"
          hint="Rubbed between two fingers in a cool room. What you say teaches Zelbin how firm your recipes set."
          options={[["", "Nobody has felt"], ...Object.entries(SPOON)]}
          {...sheet.register("firm")}
        />
        <Choice label="Its scent" options={Object.entries(SCENTS)} {...sheet.register("scent")} />
        <Choice label="Lids, or bars" options={Object.entries(CLOSURES)} {...sheet.register("closes")} />
        <Text
          data-amount
          label="Labels on"
          hint={`Product, net weight, lot and best before, on ${units}.`}
          {...sheet.register("labelled")}
          problem={errors.labelled?.message}
        />
        <Text
          label="Note"
          className="sm:col-span-2"
          hint="Where something is amiss, why it goes all the same; or why it is held back."
          {...sheet.register("note")}
          problem={errors.note?.message}
        />
      </div>
      <Problem say={sheet.problem} see={sheet.see} />
      <div className="mt-3 flex flex-wrap gap-2">
        <Button type="submit" disabled={sheet.busy}>
          Release it
        </Button>
        <Button disabled={sheet.busy} onClick={() => void sheet.send("hold")()}>
          Hold it back
        </Button>
      </div>
    </form>
  );
}
