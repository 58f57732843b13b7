/** Letters to everybody known by name, and a notice for each market: a page of paper each. */
import { Link } from "react-router";
import { letterTo, noticeFor, type Had } from "#core/lot/recall";
import { sayFullDay } from "#core/when";
import { readRecall } from "#db/lots/recalls";
import { cachedSettings } from "#db/settings/settings";
import { today } from "#db/clock";
import { db } from "../../server/workshop.server.ts";
import { idOf } from "../../forms/ids.ts";
import { Copy } from "../../ui/fields/copy.tsx";
import { Print } from "../../ui/sheet/print.tsx";
import { Empty, Heading } from "../../ui/sheet/sheet.tsx";
import type { Route } from "./+types/letters";
import { nameOf } from "../lotColumns.tsx";
import { headsLetter } from "./headsLetter.ts";

export const meta: Route.MetaFunction = () => [{ title: "Recall letters · Zelbin" }];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const [found, { workshop, maker, reachUs }] = await Promise.all([readRecall(db(), id), cachedSettings(db())]);
  if (!found) throw new Response("Not found", { status: 404 });
  const { recall, reach } = found;
  const lots = new Map(reach.lots.map((l) => [l.id, l]));
  const had = (all: (typeof reach.people)[number]["times"]): Had[] =>
    all.flatMap((t) =>
      t.had.map(({ lotId, units }) => {
        const l = lots.get(lotId)!;
        return { units, what: nameOf(l), number: l.number, when: sayFullDay(t.day) };
      }),
    );
  const notice = {
    workshop,
    maker,
    reachUs,
    written: sayFullDay(today()),
    reason: recall.reason,
    toDo: recall.toDo,
    rehearsal: recall.rehearsal,
  };
  return {
    id,
    unanswerable: reachUs === "",
    letters: [
      ...reach.people.map((p) => ({ key: p.contactId, to: p.name, reach: p.reach, text: letterTo(p.name, had(p.times), notice) })),
      ...reach.markets.map((m) => ({
        key: m.contactId,
        to: `Notice for ${m.name}`,
        reach: m.reach,
        text: noticeFor(m.name, had(m.times), notice),
      })),
    ],
  };
}

export default function Letters({ loaderData: { id, letters, unanswerable } }: Route.ComponentProps) {
  return (
    <>
      <div className="no-print">
        <Heading
          title="Letters"
          about="One to everybody named on an order, and a notice for each market. Each prints on a page of its own."
        >
          <Link to={`/lots/recalls/${id}`} className="act">
            Back to the recall
          </Link>
          {letters.length > 0 && <Print main pdf={`/lots/recalls/${id}/letters/pdf`} />}
        </Heading>
      </div>
      {unanswerable && letters.length > 0 && (
        <p className="no-print mb-4 rounded bg-honey-wash px-4 py-2 text-honey">
          The letters don’t say how to reach you.{" "}
          <Link to="/settings" className="font-semibold underline underline-offset-4">
            Say it in Settings
          </Link>
          , or write it in by hand.
        </p>
      )}
      {letters.length === 0 ? (
        <Empty title="Nobody to write to">None of it went to anybody known by name, and none was sold at a market.</Empty>
      ) : (
        letters.map((l, i) => (
          <section
            key={l.key}
            aria-label={l.to}
            className={`sheet mx-auto mb-6 max-w-reading rounded-md border border-rule bg-sheet px-8 py-7 shadow-sheet ${i > 0 ? "break-before-page" : ""}`}
          >
            <div className="no-print mb-4 flex items-baseline justify-between gap-4 text-small text-pine-soft">
              <span>
                {l.to}
                {l.reach && <>, {l.reach}</>}
              </span>
              <Copy text={l.text} of={l.to} />
            </div>
            {l.text.split("\n\n").map((p, n) => (
              <p
                key={n}
                className={`mt-3.5 whitespace-pre-line first:mt-0 ${headsLetter(p) ? "font-display text-title" : "text-lead leading-relaxed"}`}
              >
                {p}
              </p>
            ))}
          </section>
        ))
      )}
    </>
  );
}
