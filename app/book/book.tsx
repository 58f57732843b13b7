/** The book of acts: everything that was done, newest first, to read, search and take back from. */
import { ACT_KINDS, ACTS_SAID } from "#core/act/kinds";
import { nameOf, readBook } from "#db/acts/book";
import { Form, Link } from "react-router";
import { db } from "../server/workshop.server.ts";
import { STATIONS } from "../ui/frame/stations.ts";
import { AskedDay } from "../ui/fields/dateField.tsx";
import { Choice, Text } from "../ui/fields/form.tsx";
import { Empty, Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { SaveAs } from "../ui/lists/saveAs.tsx";
import { ActRow } from "./actsOf.tsx";
import { addressOf, askedOfBook } from "./asked.ts";
import { actLine } from "./lines.server.ts";
import { Record } from "./record.tsx";
import type { Route } from "./+types/book";

export const meta: Route.MetaFunction = () => [{ title: "The book · Zelbin" }];

const PAGE = 50;

export async function loader({ request }: Route.LoaderArgs) {
  const { asked, query, about } = askedOfBook(request);
  const rows = await readBook(db(), query, PAGE + 1);
  return {
    rows: rows.slice(0, PAGE).map(actLine),
    more: rows.length > PAGE ? rows[PAGE - 1]!.id : null,
    asked,
    record: about && { ...about, called: await nameOf(db(), about) },
  };
}

export default function Book({ loaderData: { rows, more, asked, record } }: Route.ComponentProps) {
  const kinds = ACT_KINDS.filter((k) => asked.station === "" || ACTS_SAID[k].station === asked.station);
  return (
    <>
      <Heading
        title="The book"
        about="Everything that was done here, by whom and when. Open a line for what it moved; what can be taken back can be taken back from here, today or in a year."
      >
        <Link to="/accounts" className="act">
          Money for the accountant
        </Link>
      </Heading>
      <Sheet>
        <Form method="get" className="no-print mb-5 grid items-end gap-3 sm:grid-cols-[1fr_9rem_12rem_9.5rem_9.5rem_auto]">
          <Text label="Words" name="find" defaultValue={asked.find} placeholder="such as hand balm" />
          <Choice
            label="Station"
            name="station"
            defaultValue={asked.station}
            options={[
              ["", "All"],
              ...STATIONS.map(([to, name]) => [to.slice(1), name] as const).filter(([id]) => id !== ""),
              ["settings", "Settings"],
            ]}
          />
          <Choice
            label="What"
            name="kind"
            defaultValue={asked.kind}
            options={[["", "Anything"], ...kinds.map((k) => [k, ACTS_SAID[k].say] as const)]}
          />
          <AskedDay label="From" name="from" leaning="past" defaultValue={asked.from} />
          <AskedDay label="To" name="to" leaning="past" defaultValue={asked.to} />
          <button className="act">Search</button>
          <label className="flex items-center gap-2 text-small sm:col-span-6">
            <input type="checkbox" name="standing" value="yes" defaultChecked={asked.standing} />
            Hide what was taken back
          </label>
          {asked.about !== "" && <input type="hidden" name="about" value={asked.about} />}
        </Form>
        {record && (
          <p className="mb-3 text-pine-soft">
            Only what was done to one record: <Record of={record} />.{" "}
            <Link to="/book" className="underline underline-offset-4">
              The whole book
            </Link>
          </p>
        )}
        {rows.length === 0 ? (
          <Empty title="Nothing like that in the book">Every receipt, batch, sale, count and change is written here as it is done.</Empty>
        ) : (
          <ul className="divide-y divide-rule border-y border-rule">
            {rows.map((a) => (
              <ActRow key={a.id} act={a} />
            ))}
          </ul>
        )}
        {more !== null && (
          <p className="mt-3">
            <Link to={`/book?${addressOf(asked, { before: String(more) })}`} className="act act-small">
              Older
            </Link>
          </p>
        )}
        {rows.length > 0 && (
          <SaveAs
            files={[
              [`/book/acts.csv?${addressOf(asked)}`, "Save as CSV"],
              [`/book/movements.csv?${addressOf(asked)}`, "What they moved as CSV"],
            ]}
          />
        )}
      </Sheet>
    </>
  );
}
