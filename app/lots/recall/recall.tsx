/** One recall: where everything is, who was told, and what came back. */
import { untraced } from "#db/listsIn/finished";
import { tellRecall, closeRecall } from "#db/lots/recall";
import { readRecall } from "#db/lots/recalls";
import { boolean, object } from "yup";
import { actsOf } from "../../book/lines.server.ts";
import { db } from "../../server/workshop.server.ts";
import { idField, noteText, optional, wholeNumber } from "../../forms/fields.ts";
import { idOf } from "../../forms/ids.ts";
import { openSheet } from "../../forms/openSheet.server.ts";
import { runAct, pressedSheet } from "../../forms/sheet.server.ts";
import { readDay } from "#core/when";
import { RecallRecord } from "./record.tsx";
import type { Route } from "./+types/recall";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Recall ${params.id} · Zelbin` }];

export async function loader({ params }: Route.LoaderArgs) {
  const id = idOf(params.id);
  const record = { kind: "recall", id } as const;
  const [found, sheet, book, beyond] = await Promise.all([readRecall(db(), id), openSheet(record), actsOf(record), untraced(db())]);
  if (!found) throw new Response("Not found", { status: 404 });
  const { begunAt, closedAt, ...row } = found.recall;
  return {
    recall: { ...row, closed: closedAt !== null },
    /** How long it has gone on, or took. */
    elapsed: (closedAt ?? new Date()).getTime() - begunAt.getTime(),
    startIds: found.startIds,
    told: found.told,
    reach: { ...found.reach, accounts: [...found.reach.accounts] },
    untraced: beyond,
    opened: sheet,
    book,
  };
}

const said = { toldOn: optional(readDay), back: wholeNumber(0, 100_000, "units", 0), note: noteText(300) };
const tellSchema = object({ contactId: idField(), ...said, was: object(said).required() });
const closeSchema = object({ free: boolean().required() });

export async function action({ request, params }: Route.ActionArgs) {
  const recallId = idOf(params.id);
  const pressed = await pressedSheet(request, ["close", "tell"]);
  if (!pressed.ok) return pressed.reply;
  if (pressed.intent === "close") {
    const sheet = await pressed.read(closeSchema);
    return sheet.ok ? runAct(() => closeRecall(db(), { recallId, free: sheet.value.free }, sheet.doing)) : sheet.reply;
  }
  const sheet = await pressed.read(tellSchema);
  return sheet.ok ? runAct(() => tellRecall(db(), { recallId, ...sheet.value }, sheet.doing)) : sheet.reply;
}

export default function Recall({ loaderData }: Route.ComponentProps) {
  return <RecallRecord {...loaderData} />;
}
