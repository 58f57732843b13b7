/** Third and fourth step: materials and containers, ticked in the library, many at once. */
import { KIND_IDS, kind, type KindId } from "#core/material/kinds";
import { FIRST_STEPS } from "#core/settings/firstSteps";
import { firstSteps } from "#db/settings/firstSteps";
import { addFromLibrary } from "#db/shelf/keepMaterial";
import { listMaterials } from "#db/shelf/materials";
import { array, object } from "yup";
import { db } from "../server/workshop.server.ts";
import { noteText } from "../forms/fields.ts";
import { runAct, readSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { LibraryColumns, LibraryFind, Ticked, pickedOn, useLibraryFind } from "../shelf/materials/libraryPick.tsx";
import { Problem } from "../ui/fields/form.tsx";
import { Sheet } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import { wayOn } from "./begin.server.ts";
import { StepHeading } from "./frame.tsx";
import { Skip } from "./skip.tsx";
import type { Route } from "./+types/pick";

const STEP = { materials: "ingredient", containers: "packaging" } as const;
type PickStep = keyof typeof STEP;
const kindsOf = (step: PickStep): KindId[] => KIND_IDS.filter((k) => kind(k).group === STEP[step]);
const KINDS_OF = { materials: kindsOf("materials"), containers: kindsOf("containers") };

/** @throws 404 for any other step */
function stepOf(params: { step?: string }): PickStep {
  const { step } = params;
  if (step !== "materials" && step !== "containers") throw new Response("Not Found", { status: 404 });
  return step;
}

export const meta: Route.MetaFunction = ({ params }) => [
  { title: `${params.step === "containers" ? FIRST_STEPS.containers.say : FIRST_STEPS.materials.say} · Zelbin` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const step = stepOf(params);
  const [all, steps] = await Promise.all([listMaterials(db()), firstSteps(db())]);
  return { step, have: all.flatMap((m) => [m.libraryKey ?? "", m.name.toLowerCase()]), steps, token: crypto.randomUUID() };
}

const schema = object({ take: array().of(noteText(60)).min(1, "Tick what you have, or skip this for now.").required() });

export async function action({ request, params }: Route.ActionArgs) {
  const step = stepOf(params);
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const to = await wayOn(step);
  return runAct(() => addFromLibrary(db(), { keys: sheet.value.take }, sheet.doing), { path: () => to });
}

// The two steps are two sheets, though one route draws both.
export default function Pick({ loaderData }: Route.ComponentProps) {
  return <PickSheet key={loaderData.step} {...loaderData} />;
}

function PickSheet({ step, have, steps, token }: Route.ComponentProps["loaderData"]) {
  const sheet = useSheet<{ take: string[] }>({ take: [] }, { token }, { draft: "Ticks in the library" });
  const { question, ask, found } = useLibraryFind(KINDS_OF[step]);
  const taken = sheet.values.take;
  const picked = pickedOn(sheet, have);
  return (
    <form onSubmit={sheet.send()}>
      <StepHeading
        id={step}
        stays
        steps={steps}
        skip={
          <>
            <LibraryFind question={question} ask={ask} />
            <Skip id={step} token={token} />
          </>
        }
      >
        <Send sheet={sheet}>{taken.length > 0 ? `Take ${taken.length} and go on` : "Go on"}</Send>
      </StepHeading>
      <Sheet>
        <SheetSays sheet={sheet} />
        <Problem say={sheet.formState.errors.take?.message} />
        <Ticked {...picked} />
        <LibraryColumns {...picked} found={found} />
      </Sheet>
    </form>
  );
}
