/** A recall on its sheet: whom to tell, what is held, what is half made with it, and what can't be reached. */
import { Link } from "react-router";
import { accountAmong } from "#core/lot/reach";
import { sayElapsed, sayReason } from "#core/lot/recall";
import { WHERE, WHEREABOUTS } from "#core/ledger/whereabouts";
import { kind } from "#core/material/kinds";
import { counted } from "#core/words";
import type { NamedLot } from "#db/lots/trace";
import { ActsOf } from "../../book/actsOf.tsx";
import { usePress } from "../../forms/usePress.ts";
import { LotTag, showBase, When } from "../../ui/figures/amounts.tsx";
import { Figure, HowLine, Reckoner } from "../../ui/figures/reckoner.tsx";
import { Button, Problem } from "../../ui/fields/form.tsx";
import { Table, type Column } from "../../ui/lists/table.tsx";
import { Print } from "../../ui/sheet/print.tsx";
import { Caution, Heading, Part, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { nameOf } from "../lotColumns.tsx";
import { WHERE_SAID } from "./beginSheet.tsx";
import { Ticking } from "./ticking.tsx";
import type { Route } from "./+types/recall";
import { Untraced } from "./untraced.tsx";
import { Tell } from "./tell.tsx";

const TAG: Column<NamedLot> = { head: "Lot", cell: (l) => <LotTag lot={l} /> };

export function RecallRecord({ recall, elapsed, startIds, told, reach, untraced, opened, book }: Route.ComponentProps["loaderData"]) {
  const { lots, people, markets, others, jars, batches, along } = reach;
  const accounts = new Map(reach.accounts);
  const byId = new Map(lots.map((l) => [l.id, l]));
  const measured = (id: number) => {
    const of = byId.get(id)?.kind;
    return of ? kind(of).measured : "count";
  };
  const units = accountAmong(
    { accounts },
    lots.filter((l) => l.productId !== null).map((l) => l.id),
  );
  const holders = [...people, ...markets];
  const done = holders.filter((h) => told.some((t) => t.contactId === h.contactId && t.toldOn !== null)).length;
  const back = told.reduce((n, t) => n + t.back, 0);
  const here = lots.filter((l) => l.onHand > 0);
  const half = [
    ...new Map(jars.map((j) => [`jar ${j.id}`, { to: `/jars/${j.id}`, what: `${j.name}, jar ${j.number}`, is: "steeping" }])).values(),
    ...new Map(batches.map((b) => [`batch ${b.id}`, { to: `/bench/${b.id}`, what: b.name, is: "set out on the bench" }])).values(),
  ];
  const gone = WHERE.flatMap((w) => (w === "named" || w === "stall" ? [] : others[w].map((o) => ({ ...o, where: w }))));
  const what = recall.rehearsal ? "Rehearsal" : "Recall";
  const finish = usePress(`/lots/recalls/${recall.id}`);
  const tells = (all: typeof people, way: string) =>
    all.map((h) => (
      <Tell
        key={h.contactId}
        recallId={recall.id}
        holder={h}
        lots={byId}
        told={told.find((t) => t.contactId === h.contactId) ?? null}
        opened={opened}
        closed={recall.closed}
        way={way}
      />
    ));
  return (
    <>
      <Heading
        title={`${what} ${recall.id}`}
        about={
          <>
            {recall.reason} Begun <When day={recall.day} /> by {recall.who}
            {recall.rehearsal && "; nothing is held"}.
          </>
        }
      >
        <Link to="/lots/recalls" className="act">
          All recalls
        </Link>
        <Link to={`/lots/recalls/${recall.id}/letters`} className="act">
          Letters
        </Link>
        <Link to={`/lots/recalls/${recall.id}/list.csv`} className="act" reloadDocument>
          As a file
        </Link>
        <Print />
        {!recall.closed && !recall.rehearsal && (
          <Button disabled={finish.busy} onClick={() => finish.press({ intent: "close", free: true })}>
            False alarm: free it all
          </Button>
        )}
        {!recall.closed && (
          <Button main disabled={finish.busy} onClick={() => finish.press({ intent: "close", free: false })}>
            {recall.rehearsal ? "Stop the clock" : "Close it"}
          </Button>
        )}
        <Problem say={finish.problem?.say} see={finish.problem?.see} />
      </Heading>
      {recall.closed && (
        <p role="status" className="mb-4 rounded bg-sage-wash px-4 py-2 font-semibold text-sage">
          Closed after {sayElapsed(elapsed)}. {recall.came}
        </p>
      )}
      <SideBySide
        reckoner={
          <Reckoner title="Where it all is">
            <Figure
              label={recall.closed ? "It took" : "Since"}
              big
              value={recall.closed ? sayElapsed(elapsed) : <Ticking from={elapsed} />}
            />
            <Figure label="Units made of it" big value={units.came} />
            <Figure label="Here" value={units.here} />
            {WHERE.map((w) => (
              <Figure
                key={w}
                label={WHERE_SAID[w]}
                value={units[w]}
                tone={w === "lost" && units.lost > 0 ? "bad" : undefined}
                how={<p>{WHEREABOUTS[w]}.</p>}
              />
            ))}
            <Figure
              label="Told"
              value={`${done} of ${holders.length}`}
              tone={holders.length > 0 && done === holders.length ? "good" : undefined}
            />
            <Figure
              label="Came back"
              value={counted(back, "unit")}
              how={
                back > 0 &&
                told
                  .filter((t) => t.back > 0)
                  .map((t) => (
                    <HowLine key={t.contactId} label={holders.find((h) => h.contactId === t.contactId)?.name ?? ""} value={t.back} />
                  ))
              }
            />
            <Figure label="Lots in all" value={lots.length} />
          </Reckoner>
        }
      >
        <Sheet>
          <Untraced lots={untraced} />
          {people.length > 0 && (
            <Part title="To write to" aside={<span className="text-small text-pine-soft">{counted(units.named, "unit")} in orders</span>}>
              <ul className="divide-y divide-rule border-y border-rule">{tells(people, "In an order")}</ul>
            </Part>
          )}
          {markets.length > 0 && (
            <Part
              title="Where a notice goes"
              aside={<span className="text-small text-pine-soft">{counted(units.stall, "unit")} with people nobody knows by name</span>}
            >
              <ul className="divide-y divide-rule border-y border-rule">{tells(markets, "At the stall")}</ul>
            </Part>
          )}
          {here.length > 0 && (
            <Part title={recall.rehearsal ? "Still here" : "Still here, on hold"}>
              <Table
                rows={here}
                by={(l) => l.id}
                columns={[
                  TAG,
                  {
                    head: "Of",
                    plain: true,
                    cell: (l) => (
                      <>
                        {nameOf(l)}
                        {along
                          .filter((a) => a.lotId === l.id)
                          .map((a) => (
                            <Link key={a.dayId} to={`/markets/${a.dayId}`} className="block text-small font-semibold text-honey">
                              {a.taken} along to {a.name}, <When day={a.day} />
                            </Link>
                          ))}
                      </>
                    ),
                  },
                  { head: "Left", as: "weight", cell: (l) => showBase(l.onHand, measured(l.id)) },
                ]}
              />
            </Part>
          )}
          {half.length > 0 && (
            <Part title="Half made with it">
              <ul className="divide-y divide-rule border-y border-rule">
                {half.map((h) => (
                  <li key={h.to} className="py-1.5">
                    <Link to={h.to} className="underline underline-offset-4">
                      {h.what}
                    </Link>
                    , {h.is}
                  </li>
                ))}
              </ul>
            </Part>
          )}
          {gone.length > 0 && (
            <Part title="With nobody to tell">
              <Table
                rows={gone}
                by={(_, i) => i}
                columns={[
                  { head: "Lot", cell: (g) => <LotTag lot={byId.get(g.lotId)!} /> },
                  { head: "Of", plain: true, cell: (g) => nameOf(byId.get(g.lotId)!) },
                  { head: "When", cell: (g) => <When day={g.day} /> },
                  {
                    head: "What became of it",
                    plain: true,
                    cell: (g) =>
                      g.where === "lost"
                        ? `${g.units > 0 ? "missing" : "found"} at a count${g.note && `, ${g.note}`}`
                        : sayReason(g.reason, g.note),
                  },
                  { head: "Amount", as: "weight", cell: (g) => showBase(Math.abs(g.units), measured(g.lotId)) },
                ]}
              />
            </Part>
          )}
          <Part title="All it reaches">
            <Table
              rows={lots}
              by={(l) => l.id}
              columns={[
                TAG,
                {
                  head: "Of",
                  plain: true,
                  cell: (l) => (
                    <>
                      {nameOf(l)}
                      {startIds.includes(l.id) && <span className="text-pine-soft">, began with</span>}
                      {l.supplierLot && (
                        <span className="text-pine-soft">
                          , {l.supplier} <span className="weight text-part">{l.supplierLot}</span>
                        </span>
                      )}
                    </>
                  ),
                },
                { head: "Came", as: "weight", cell: (l) => showBase(accounts.get(l.id)!.came, measured(l.id)) },
                {
                  head: "Into others",
                  as: "weight",
                  cell: (l) => (accounts.get(l.id)!.on ? showBase(accounts.get(l.id)!.on, measured(l.id)) : ""),
                },
                { head: "Here", as: "weight", cell: (l) => showBase(accounts.get(l.id)!.here, measured(l.id)) },
              ]}
            />
          </Part>
          <div className="mt-5">
            <Caution>What has to be reported to an authority, and how fast, is for local rules: this sheet tells nobody by itself.</Caution>
          </div>
          <ActsOf {...book} />
        </Sheet>
      </SideBySide>
    </>
  );
}
