/** Fifth step: how much of each is on the shelf now. */
import { Link } from "react-router";
import { firstSteps } from "#db/settings/firstSteps";
import { db } from "../server/workshop.server.ts";
import { openingAction, openingLoader } from "../shelf/opening/opening.server.ts";
import { OpeningSheet } from "../shelf/opening/openingSheet.tsx";
import { wayOn } from "./begin.server.ts";
import { StepHeading } from "./frame.tsx";
import { Skip } from "./skip.tsx";
import type { Route } from "./+types/opening";

export const meta: Route.MetaFunction = () => [{ title: "Opening stock · Zelbin" }];

export const loader = async () => ({ ...(await openingLoader()), steps: await firstSteps(db()) });
export const action = async ({ request }: Route.ActionArgs) => openingAction(request, await wayOn("opening"));

export default function OpeningStep({ loaderData: { materials, prepared, steps, token } }: Route.ComponentProps) {
  return (
    <OpeningSheet
      materials={materials}
      prepared={prepared}
      opened={{ token }}
      heading={(button) => (
        <StepHeading
          id="opening"
          steps={steps}
          skip={
            <>
              <Link to="/shelf/opening/file" className="act">
                From a file
              </Link>
              <Skip id="opening" token={token} />
            </>
          }
        >
          {button}
        </StepHeading>
      )}
    />
  );
}
