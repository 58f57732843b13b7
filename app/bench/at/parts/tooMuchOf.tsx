/** What of a part's scent is too much, said wherever the part is. */
import { Caution } from "../../../ui/sheet/sheet.tsx";
import type { Part } from "./partsOf.ts";

export function TooMuchOf({ part }: { part: Part }) {
  return part.tooMuch.map((t) => (
    <Caution key={t.say}>
      {t.say} {t.why}
    </Caution>
  ));
}
