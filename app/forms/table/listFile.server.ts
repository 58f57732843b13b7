/** The action of every page that takes a list in: it is looked at as often as something changes, and goes in as one act, as it was looked at. */
import { fieldsOf, listRows, listTable, writtenIn, type Columns, type ListRead, type ListRow, type ListSpec } from "#core/listsIn/list";
import type { Reading } from "#core/listsIn/cells";
import { DATE_ORDERS, NUMBER_STYLES } from "#core/intake/loose";
import { readRows } from "#core/intake/table";
import { isKeyOf } from "#core/objects";
import { counted, wordList } from "#core/words";
import type { ActOptions, Done } from "#db/act/define";
import { today } from "#db/clock";
import { cachedSettings } from "#db/settings/settings";
import { createHash } from "node:crypto";
import { data } from "react-router";
import { object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { noteText, requiredText } from "../fields.ts";
import { withProgress } from "../progress.server.ts";
import { intentOf, readPosted, refuseSheet, runAct, validateSheet } from "../sheet.server.ts";
import type { ListPreview } from "./listFile.tsx";
import { textsIn } from "./textsIn.ts";

type Texts = Readonly<Partial<Record<string, string>>>;

export interface ListAsked<F extends string> {
  rows: ListRow<F>[];
  header: readonly string[];
  columns: Columns<F>;
  reading: Reading;
  /** Answers to names, by name in small letters. */
  matches: Texts;
  /** What else was said beside the list. */
  extras: Texts;
}

/** What a list becomes, what else is to be chosen, and how it goes in. */
export interface ListOutcome<L, M> {
  list: ListRead<L>;
  more: M;
  /** What has to be said before any of it can go in; empty where nothing has. */
  first?: string;
  add: (doing: ActOptions) => Promise<Done>;
}

export interface ListKind<F extends string, L, M> {
  spec: ListSpec<F>;
  /** What one line of it becomes, and several. */
  words: readonly [string, string];
  read: (asked: ListAsked<F>) => Promise<ListOutcome<L, M>>;
}

/** More at once than a maker has. */
const MOST = 5000;
/** How much of a list is shown. */
const SHOWN = 40;

const schema = object({
  intent: intentOf(["look", "add"]),
  text: requiredText("a list", 8_000_000),
  numbers: noteText(10),
  dates: noteText(10),
  shown: noteText(60),
});

/** The columns as they were chosen, where somebody has chosen. */
function chosen<F extends string>(guess: Columns<F>, said: Texts, spec: ListSpec<F>, wide: number): Columns<F> {
  return Object.fromEntries(
    fieldsOf(spec).map((f) => {
      const at = said[f] ?? "";
      return [f, at === "none" ? null : /^\d{1,3}$/.test(at) && Number(at) < wide ? Number(at) : guess[f]];
    }),
  ) as Columns<F>;
}

export async function listAction<F extends string, L, M>(request: Request, kind: ListKind<F, L, M>) {
  const posted = await readPosted(request);
  if (!posted.ok) return posted.reply;
  const sheet = await validateSheet(posted.body, schema);
  if (!sheet.ok) return sheet.reply;
  const { intent, text, numbers, dates, shown } = sheet.value;
  const { spec, words } = kind;
  const body = posted.body as Record<string, unknown>;
  const [matches, extras] = [textsIn(body.matches, (k) => k.toLowerCase()), textsIn(body.extras)];

  const all = readRows(text, { least: 1 });
  if (!all.ok) return refuseSheet([{ field: "text", say: all.problem.say }]);
  const table = listTable(all.value, spec);
  const columns = chosen(table.columns, textsIn(body.columns), spec, table.header.length);
  const parted = listRows(table.rows, columns, spec);
  const said = { numbers: isKeyOf(NUMBER_STYLES, numbers) ? numbers : null, dates: isKeyOf(DATE_ORDERS, dates) ? dates : null };
  const { written, asked } = writtenIn(parted.rows, spec, said, today());
  const missing = spec.needed.filter((f) => columns[f] === null && parted.rows.every((r) => r.text(f) === ""));
  const { currency } = await cachedSettings(db());
  const outcome = await kind.read({
    rows: missing.length > 0 ? [] : parted.rows,
    header: table.header,
    columns,
    reading: { ...written, own: currency, today: today() },
    matches,
    extras,
  });
  const { fresh, there, problems, unknown, remarks } = outcome.list;
  const say =
    missing.length > 0
      ? `Say which column has the ${wordList(missing.map((f) => spec.fields[f].toLowerCase()))}.`
      : asked.numbers ||
        asked.dates ||
        outcome.first ||
        (fresh.length > MOST ? `It has ${counted(fresh.length, ...words)}; up to ${MOST} at a time can go in. Split it.` : null);
  const digest = createHash("sha256")
    .update(JSON.stringify([fresh, matches, extras]))
    .digest("base64url");
  if (intent === "look") {
    const left = [...table.left, ...parted.left].sort((a, b) => a.at - b.at);
    const above = parted.rows.filter((r) => r.above.length > 0).length;
    return data({
      preview: {
        digest,
        header: table.header,
        columns,
        rows: table.rows.length,
        sample: table.rows[0]?.cells ?? [],
        numbers: asked.numbers ? "" : written.numbers,
        dates: asked.dates ? "" : written.dates,
        asked,
        shown: fresh.slice(0, SHOWN),
        fresh: fresh.length,
        there: [...new Set(there.map((t) => t.name))].slice(0, SHOWN),
        thereCount: there.length,
        problems: problems.slice(0, SHOWN),
        problemCount: problems.length,
        unknown: unknown.slice(0, SHOWN),
        remarks: remarks.slice(0, SHOWN),
        left: left.slice(0, SHOWN),
        leftCount: left.length,
        above,
        more: outcome.more,
        first: outcome.first ?? "",
        say,
      } satisfies ListPreview<F, L, M>,
    });
  }
  if (say !== null) return refuseSheet([{ field: "", say }]);
  if (fresh.length === 0) return refuseSheet([{ field: "", say: "Nothing in it is new." }]);
  if (digest !== shown) return refuseSheet([{ field: "", say: "It has changed since it was shown. Look at it again, then put it in." }]);
  return runAct(() => withProgress(sheet.doing.token, (progress) => outcome.add({ ...sheet.doing, progress })));
}
