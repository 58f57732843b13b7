/** The stock-take: walking the shelf lot by lot, and posting all that differs as one act. */
import { groupBy } from "#core/collect";
import { factsIn } from "#core/material/facts";
import { kind, KIND_IDS, KINDS } from "#core/material/kinds";
import { money } from "#core/measure/money";
import { costOf } from "#core/measure/money";
import { readStock } from "#core/stock/packs";
import { counted as countOf } from "#core/words";
import { materialOfLot } from "#db/shelf/materials";
import { dropCounts, noteCount, postStocktake, walkShelf, type WalkRow } from "#db/shelf/stocktake";
import { useRef } from "react";
import { Link, redirect, useFetcher } from "react-router";
import { object } from "yup";
import { db } from "../../db.server.ts";
import { idField, note } from "../../forms/fields.ts";
import { act, asked, readSheet, refuseSheet, type Reply } from "../../forms/sheet.server.ts";
import { LotTag, showBase, showInColumn } from "../../ui/amounts.tsx";
import { Button, Problem } from "../../ui/form.tsx";
import { Empty, Heading, Sheet } from "../../ui/sheet.tsx";
import { Table } from "../../ui/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Route } from "./+types/stockTake";

export const meta: Route.MetaFunction = () => [{ title: "Stock-take · Zelbin" }];
export const loader = async () => ({ rows: await walkShelf(db()), token: crypto.randomUUID() });

const schema = object({ intent: note(20), lotId: idField(), counted: note(40), note: note(200) });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const v = sheet.value;
  if (v.intent === "post") return act(() => postStocktake(db(), {}, sheet.doing));
  if (v.intent === "drop")
    return asked(async () => {
      await dropCounts(db());
      return redirect("/shelf/stock-take");
    });
  const m = await materialOfLot(db(), v.lotId);
  if (!m) return refuseSheet([{ field: `lot.${v.lotId}`, say: "That lot isn't here any more." }]);
  const amount = v.counted.trim() === "" ? null : readStock(v.counted, factsIn(m));
  if (amount && !amount.ok) return refuseSheet([{ field: `lot.${v.lotId}`, say: amount.problem.say }]);
  return asked(async () => {
    await noteCount(db(), v.lotId, amount ? amount.value : null, v.note);
    return redirect("/shelf/stock-take");
  });
}

/** What was found of a lot: kept as it is left, the next one a press of Enter away. */
function Count({ row: r, problem }: { row: WalkRow; problem: string | undefined }) {
  const keep = useFetcher<Reply | null>();
  const input = useRef<HTMLInputElement>(null);
  const measured = kind(r.kind).measured;
  const start = r.counted === null ? "" : showBase(r.counted, measured).replace(/,/g, "");
  const said = useRef(start);
  const send = (text: string): void => {
    if (text.trim() === said.current.trim()) return;
    said.current = text;
    void keep.submit(
      { intent: "note", lotId: r.id, counted: text, note: r.note ?? "" },
      {
        method: "post",
        encType: "application/json",
      },
    );
  };
  const say = keep.data?.problems[0]?.say ?? problem;
  return (
    <>
      <span className="flex items-baseline gap-2">
        <input
          ref={input}
          className="cell text-right tabular-nums"
          defaultValue={start}
          placeholder={measured === "weight" ? "g" : "pcs"}
          aria-label={`Counted, ${r.number}`}
          aria-invalid={say ? true : undefined}
          aria-describedby={say ? `count-${r.id}` : undefined}
          onBlur={(e) => send(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault();
            const all = [...document.querySelectorAll<HTMLInputElement>("input[data-count]")];
            (all[all.indexOf(e.currentTarget) + 1] ?? e.currentTarget).focus();
            send(e.currentTarget.value);
          }}
          data-count
        />
        <Button
          small
          className="no-print flex-none"
          aria-label={`As expected, ${r.number}`}
          onClick={() => {
            const text = showBase(r.onHand, measured).replace(/,/g, "");
            if (input.current) input.current.value = text;
            send(text);
          }}
        >
          As expected
        </Button>
      </span>
      <Problem id={`count-${r.id}`} say={say} />
    </>
  );
}

/** By how much a count differs; null where nothing was counted. */
const differs = (r: WalkRow): number | null => (r.counted === null ? null : r.counted - r.expected!);

/** By how much a count differs, and what that is worth. */
function Difference({ row: r }: { row: WalkRow }) {
  const { currency } = useWorkshop();
  const diff = differs(r);
  if (diff === null) return null;
  if (diff === 0) return "as expected";
  return (
    <>
      {diff > 0 ? "+" : "−"}
      {showBase(Math.abs(diff), kind(r.kind).measured)}
      {r.onHand > 0 && (
        <span className="block font-sans text-[0.85em] text-pine-soft">
          {money(costOf(Math.abs(diff), { value: r.value, per: r.onHand }), currency)}
        </span>
      )}
    </>
  );
}

export default function StockTake({ loaderData: { rows, token } }: Route.ComponentProps) {
  const post = useFetcher<Reply | null>();
  const hit = (intent: string): void => void post.submit({ intent, token }, { method: "post", encType: "application/json" });
  const done = rows.filter((r) => r.counted !== null);
  const differ = done.filter((r) => r.counted !== r.expected);
  const problems = new Map((post.data?.problems ?? []).map((p) => [p.field, p.say]));
  const boards = groupBy(rows, (r) => r.kind);
  return (
    <>
      <Heading
        title="Stock-take"
        about={
          rows.length > 0
            ? `${done.length} of ${countOf(rows.length, "lot")} counted, ${differ.length === 0 ? "none differs" : `${differ.length} ${differ.length === 1 ? "differs" : "differ"}`}. Each count is kept as you go; nothing moves before you post them.`
            : undefined
        }
      >
        {done.length > 0 && (
          <Button disabled={post.state !== "idle"} onClick={() => hit("drop")}>
            Start over
          </Button>
        )}
        {rows.length > 0 && (
          <>
            <Button onClick={() => window.print()}>Print the list</Button>
            <Button main disabled={post.state !== "idle" || done.length === 0} onClick={() => hit("post")}>
              Post the counts
            </Button>
          </>
        )}
      </Heading>
      <Problem say={problems.get("") ?? (problems.size > 0 ? [...problems.values()][0] : null)} />
      {rows.length === 0 ? (
        <Empty
          title="Nothing to count"
          act={
            <Link to="/shelf/receive" className="act act-main">
              Receive a purchase
            </Link>
          }
        >
          Once lots are on the shelf, walk along it here with what is expected and what you find.
        </Empty>
      ) : (
        <Sheet>
          <Table
            groups={KIND_IDS.filter((k) => boards.has(k)).map((k) => ({ key: k, head: KINDS[k].plural, rows: boards.get(k)! }))}
            by={(r) => `${r.id}-${r.onHand}`}
            columns={[
              { head: "Material", cell: (r) => r.material },
              { head: "Lot", plain: true, cell: (r) => <LotTag lot={r} /> },
              { head: "Expected", as: "weight", cell: (r) => showInColumn(r.onHand, kind(r.kind).measured) },
              {
                head: "Counted",
                className: "w-72",
                cell: (r) => <Count row={r} problem={problems.get(`lot.${r.id}`)} />,
              },
              {
                head: "Differs",
                headClass: "w-36",
                as: "weight",
                className: (r) => (differs(r) ? `font-semibold ${differs(r)! < 0 ? "text-berry" : ""}` : ""),
                cell: (r) => <Difference row={r} />,
              },
            ]}
          />
        </Sheet>
      )}
    </>
  );
}
