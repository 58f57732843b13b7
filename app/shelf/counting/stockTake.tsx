/** The stock-take: walking the shelf lot by lot, and posting all that differs as one act. */
import { groupBy } from "#core/collect";
import { kind, KIND_IDS, KINDS } from "#core/material/kinds";
import { money } from "#core/measure/money";
import { costOf } from "#core/measure/money";
import { counted as countOf, wordList } from "#core/words";
import { dropCounts, notedSoFar, postStocktake, WALK_PAGE, walkShelf, walkTotals, type WalkRow } from "#db/shelf/counting/stocktake";
import { startTransition, useEffect, useRef, useState } from "react";
import { Form, Link, redirect, useFetcher, useRevalidator } from "react-router";
import { object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { noteText } from "../../forms/fields.ts";
import { idOf } from "../../forms/ids.ts";
import { Resend } from "../../forms/beside/resend.tsx";
import { useBackgroundPost } from "../../forms/beside/useBackgroundPost.ts";
import { runAct, withRefusals, intentOf, readSheet, type Reply } from "../../forms/sheet.server.ts";
import { LotTag, showBase, showInColumn } from "../../ui/figures/amounts.tsx";
import { Button, Problem } from "../../ui/fields/form.tsx";
import { Print } from "../../ui/sheet/print.tsx";
import { Empty, Heading, Sheet } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { Count, type Keep, type OnWrong } from "./count.tsx";
import type { Route } from "./+types/stockTake";

export const meta: Route.MetaFunction = () => [{ title: "Stock-take · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams;
  const find = (asked.get("find") ?? "").trim().slice(0, 80);
  const totals = await walkTotals(db());
  const all = totals.reduce((a, t) => a + t.lots, 0);
  // A shelf that fits a page is walked whole; a larger one board by board.
  const whole = all <= WALK_PAGE;
  const boards = KIND_IDS.filter((k) => totals.some((t) => t.kind === k));
  const board = whole || find ? null : (boards.find((k) => k === asked.get("board")) ?? boards[0] ?? null);
  const page = whole ? 0 : idOf(asked.get("page"));
  const [rows, noted] = await Promise.all([walkShelf(db(), { kind: board, find, page }), notedSoFar(db())]);
  return { rows, totals, whole, boards, board, find, page, size: WALK_PAGE, noted, token: crypto.randomUUID() };
}

const schema = object({ intent: intentOf(["post", "drop"]), noted: noteText(60) });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  if (sheet.value.intent === "post") return runAct(() => postStocktake(db(), { noted: sheet.value.noted }, sheet.doing));
  return withRefusals(async () => {
    await dropCounts(db());
    return redirect("/shelf/stock-take");
  });
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
        <span className="block font-sans text-part text-pine-soft">
          {money(costOf(Math.abs(diff), { value: r.value, per: r.onHand }), currency)}
        </span>
      )}
    </>
  );
}

/** The boards of a shelf too large for one page, with how far each has been walked. */
function Boards({
  totals,
  boards,
  board,
  find,
  page,
  size,
  full,
}: Pick<Loaded, "totals" | "boards" | "board" | "find" | "page" | "size"> & { full: boolean }) {
  const here = totals.find((t) => t.kind === board);
  const at = (n: number): string =>
    `?${new URLSearchParams({ ...(board && { board }), ...(find && { find }), ...(n > 0 && { page: String(n) }) })}`;
  const pages = here ? Math.ceil(here.lots / size) : null;
  return (
    <nav aria-label="Boards" className="no-print mb-4 space-y-3">
      <Form method="get" role="search">
        <input
          type="search"
          name="find"
          aria-label="Find a lot to count"
          placeholder="Find a material or lot"
          className="field w-64!"
          defaultValue={find}
        />
      </Form>
      <p className="flex flex-wrap gap-x-5 gap-y-1">
        {boards.map((k) => {
          const t = totals.find((x) => x.kind === k)!;
          return (
            <Link
              key={k}
              to={`?board=${k}`}
              aria-current={k === board ? "page" : undefined}
              className={k === board ? "font-semibold" : "pressable"}
            >
              {KINDS[k].plural} <span className="ml-1.5 text-small text-pine-soft">{`${t.counted} of ${t.lots}`}</span>
            </Link>
          );
        })}
      </p>
      {(page > 0 || full) && (
        <p className="flex items-baseline gap-5 text-small text-pine-soft">
          {pages ? `Page ${page + 1} of ${pages}` : `Page ${page + 1}`}
          {page > 0 && (
            <Link to={at(page - 1)} className="pressable">
              The page before
            </Link>
          )}
          {full && (pages === null || page + 1 < pages) && (
            <Link to={at(page + 1)} className="pressable">
              The next page
            </Link>
          )}
        </p>
      )}
    </nav>
  );
}

type Loaded = Route.ComponentProps["loaderData"];

export default function StockTake({ loaderData }: Route.ComponentProps) {
  return (
    <Resend>
      <Walk loaderData={loaderData} />
    </Resend>
  );
}

function Walk({ loaderData }: { loaderData: Loaded }) {
  const { rows, totals, whole, noted, token } = loaderData;
  const post = useFetcher<Reply | null>();
  const noting = useBackgroundPost("/shelf/stock-take/noted");
  const { revalidate } = useRevalidator();
  // Another window may have counted meanwhile.
  useEffect(() => {
    const look = (): void => void revalidate();
    window.addEventListener("focus", look);
    return () => window.removeEventListener("focus", look);
  }, [revalidate]);
  const keep: Keep = async (count) => {
    const problems = await noting.post(count);
    // The sums at the head of the list, what the lot differs by, and what another window counted.
    void revalidate();
    return problems;
  };
  // What is on the page is what is posted, or nothing is: a count that couldn't be saved isn't posted as it was before.
  const wrong = useRef(new Map<number, string>());
  const [stopped, stop] = useState<string>();
  const onWrong: OnWrong = (of, isWrong) => {
    if (isWrong) wrong.current.set(of.id, of.number);
    else wrong.current.delete(of.id);
    if (wrong.current.size === 0) stop(undefined);
  };
  // What another window counted since the press has to be seen before it is posted.
  const unseen = useRef(new Set<string>());
  const [pressed, press] = useState<"post" | "drop" | null>(null);
  // The count that was left by this very press is saved first, and what others noted is brought in.
  const hit = (intent: "post" | "drop"): void => {
    unseen.current.clear();
    void noting
      .settled()
      .then(revalidate)
      // With what came just now, and not before it is drawn.
      .then(() => startTransition(() => press(intent)));
  };
  useEffect(() => {
    if (!pressed) return;
    press(null);
    const numbers = [...wrong.current.values()];
    const others = [...unseen.current];
    if (pressed === "post" && numbers.length > 0)
      stop(`Nothing was posted: the count of ${wordList(numbers)} isn't saved. Correct it, or empty the field, and post again.`);
    else if (pressed === "post" && others.length > 0)
      stop(`Nothing was posted: another window counted ${wordList(others)}. Its count is shown here now; look at it, and post again.`);
    else {
      stop(undefined);
      void post.submit({ intent: pressed, noted, token }, { method: "post", encType: "application/json" });
    }
    // At a press, with what the page knows by then.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [pressed]);
  const sum = (of: "lots" | "counted" | "differ"): number => totals.reduce((a, t) => a + t[of], 0);
  const [lots, done, differ] = [sum("lots"), sum("counted"), sum("differ")];
  const problems = new Map((post.data?.problems ?? []).map((p) => [p.field, p.say]));
  const boards = groupBy(rows, (r) => r.kind);
  return (
    <>
      <Heading
        title="Stock-take"
        about={
          lots > 0
            ? `${done} of ${countOf(lots, "lot")} counted, ${differ === 0 ? "none differs" : `${differ} ${differ === 1 ? "differs" : "differ"}`}. Each count is saved as you go; nothing moves until you post them.`
            : undefined
        }
      >
        {done > 0 && (
          <Button disabled={post.state !== "idle"} onClick={() => hit("drop")}>
            Start over
          </Button>
        )}
        {lots > 0 && (
          <>
            <Print pdf="/shelf/stock-take/pdf">Print the list</Print>
            <Button main disabled={post.state !== "idle" || done === 0} onClick={() => hit("post")}>
              Post the counts
            </Button>
          </>
        )}
      </Heading>
      <Problem say={stopped ?? problems.get("") ?? (problems.size > 0 ? [...problems.values()][0] : null)} />
      {!whole && <Boards {...loaderData} full={rows.length === loaderData.size} />}
      {lots === 0 ? (
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
                className: "w-72 print:w-40",
                cell: (r) => (
                  <Count
                    row={r}
                    problem={problems.get(`lot.${r.id}`)}
                    keep={keep}
                    onWrong={onWrong}
                    onElsewhere={(of) => void unseen.current.add(of.number)}
                  />
                ),
              },
              {
                head: "Differs",
                headClass: "w-36 print:w-24",
                as: "weight",
                className: (r) => (differs(r) ? `font-semibold ${differs(r)! < 0 ? "text-berry" : ""}` : ""),
                cell: (r) => <Difference row={r} />,
              },
            ]}
          />
          {rows.length === 0 && <p className="py-5 text-center text-pine-soft">No lot on the shelf matches.</p>}
        </Sheet>
      )}
    </>
  );
}
