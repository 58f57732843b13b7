/** Beginning a recall, or a rehearsal of one: which lots it is about, why, and what it would reach. */
import { untraced } from "#db/listsIn/finished";
import { accountAmong } from "#core/lot/reach";
import { alsoMeant, finishedOf, reachOf } from "#db/lots/reach";
import { beginRecall } from "#db/lots/recall";
import { findLot, lotsLike, lotsNumbered } from "#db/lots/trace";
import { array, boolean, object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { idField, requiredText } from "../../forms/fields.ts";
import { openSheet } from "../../forms/openSheet.server.ts";
import { runAct, readSheet } from "../../forms/sheet.server.ts";
import { BeginSheet } from "./beginSheet.tsx";
import { FindLot } from "./findLot.tsx";
import type { Route } from "./+types/begin";

export const meta: Route.MetaFunction = () => [{ title: "Recall a lot · Zelbin" }];

/** No more lots than a person would tick. */
const CHOSEN_AT_MOST = 60;
const MEANT_LISTED = 20;

export async function loader({ request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams;
  const numbers = asked.getAll("lot").slice(0, CHOSEN_AT_MOST);
  const find = (asked.get("find") ?? "").trim().slice(0, 80);
  const rehearse = asked.has("rehearse");
  const chosen = numbers.length === 0 ? [] : await lotsNumbered(db(), numbers);
  const exact = find === "" ? null : await findLot(db(), find);
  const found = exact ? [exact] : find === "" ? [] : await lotsLike(db(), find, MEANT_LISTED);
  if (chosen.length === 0) return { chosen: null, found, find, rehearse, opened: await openSheet() };
  const ids = chosen.map((l) => l.id);
  const [reach, also, sheet, beyond] = await Promise.all([reachOf(db(), ids), alsoMeant(db(), ids[0]!), openSheet(), untraced(db())]);
  const meant = [...chosen, ...also.filter((l) => !ids.includes(l.id))];
  const { people, markets, jars, batches, lots } = reach;
  return {
    chosen: {
      ids,
      meant,
      untraced: beyond,
      reach: {
        lots: lots.length,
        units: accountAmong(reach, finishedOf(reach)),
        // Counted one by one, so that somebody who reads it knows whom it is about.
        people: people.map((p) => ({ name: p.name, units: p.units })),
        markets: markets.map((m) => ({ name: m.name, units: m.units })),
        jars: new Set(jars.map((j) => j.id)).size,
        batches: new Set(batches.map((b) => b.id)).size,
      },
    },
    found,
    find,
    rehearse,
    opened: sheet,
  };
}

const schema = object({
  lots: array().of(idField()).min(1, "Choose a lot to begin with.").max(CHOSEN_AT_MOST).required(),
  reason: requiredText("what is wrong", 300),
  toDo: requiredText("what people should do", 600),
  rehearsal: boolean().required(),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { lots, ...said } = sheet.value;
  return runAct(() => beginRecall(db(), { lotIds: lots, ...said }, sheet.doing));
}

export default function Begin({ loaderData }: Route.ComponentProps) {
  const { chosen, found, find, rehearse } = loaderData;
  return chosen ? (
    <BeginSheet key={rehearse ? "rehearsal" : "real"} chosen={chosen} rehearse={rehearse} opened={loaderData.opened} />
  ) : (
    <FindLot found={found} find={find} rehearse={rehearse} />
  );
}
