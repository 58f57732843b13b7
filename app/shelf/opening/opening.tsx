/** Opening stock: what is on the shelf already, as lots without a receipt. */
import { Link } from "react-router";
import { Heading } from "../../ui/sheet/sheet.tsx";
import { openingAction, openingLoader } from "./opening.server.ts";
import { OpeningSheet } from "./openingSheet.tsx";
import type { Route } from "./+types/opening";

export const meta: Route.MetaFunction = () => [{ title: "Opening stock · Zelbin" }];
export const loader = openingLoader;
export const action = ({ request }: Route.ActionArgs) => openingAction(request);

export default function Opening({ loaderData: { materials, prepared, token } }: Route.ComponentProps) {
  return (
    <OpeningSheet
      materials={materials}
      prepared={prepared}
      opened={{ token }}
      heading={(button) => (
        <Heading
          title="Opening stock"
          about="What was on the shelf before the books began: no receipt, only how much there is. Each line becomes a lot."
        >
          <Link to="/shelf/opening/file" className="act">
            From a file
          </Link>
          <Link to="/shelf" className="act">
            Leave
          </Link>
          {button}
        </Heading>
      )}
    />
  );
}
