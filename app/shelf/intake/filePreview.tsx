/** What a file would become: unknown names, what is there already, rows that can't be read or aren't goods, and the first of those that can. */
import { TWICE } from "#core/intake/asked";
import { LEFT_OUT } from "#core/intake/body";
import { isKeyOf } from "#core/objects";
import { FIELDS, type Purpose } from "#core/intake/columns";
import { money } from "#core/measure/money";
import { counted } from "#core/words";
import { useState } from "react";
import { When } from "../../ui/figures/amounts.tsx";
import { UnknownNames } from "../../forms/table/unknownNames.tsx";
import { Choice } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { asking, FileChoices, fieldName, type Matching } from "./fileChoices.tsx";
import { materialOptions } from "./materialOptions.ts";
import type { Preview } from "./intake.server.ts";

interface PreviewProps {
  purpose: Purpose;
  preview: Preview;
  names: readonly string[];
  matching: Matching;
  set: (change: Partial<Matching>) => void;
}

export function FilePreview({ purpose, preview: p, names, matching, set }: PreviewProps) {
  return (
    <>
      <FileChoices {...{ purpose, preview: p, matching, set }} />
      <Unknown {...{ preview: p, names, matching, set }} />
      {p.twice && (
        <Part title="In the books already">
          <Choice
            className="max-w-xs"
            label="Lines the books have already"
            problem={p.twice.asked ? p.twice.say : undefined}
            value={matching.twice}
            onChange={(e) => set({ twice: e.target.value })}
            options={asking(matching.twice, TWICE)}
          />
        </Part>
      )}
      {p.intake.problemCount > 0 && (
        <Part title={`${counted(p.intake.problemCount, "thing")} can't be read`}>
          <p className="mb-1 text-pine-soft">
            These rows are left out; the others can be received. Correct them in the file, or by the choices above.
          </p>
          <ul className="max-h-52 space-y-0.5 overflow-y-auto text-small">
            {p.intake.problems.map((x, i) => (
              <li key={i} className="text-berry">
                Row {x.row}, {isKeyOf(FIELDS, x.field) && fieldName(purpose, x.field).toLowerCase()}
                {x.heading && ` (“${x.heading}”)`}: {x.say}
              </li>
            ))}
            {p.intake.problemCount > p.intake.problems.length && <li>And {p.intake.problemCount - p.intake.problems.length} more.</li>}
          </ul>
        </Part>
      )}
      {p.intake.leftCount > 0 && (
        <Part title={`${counted(p.intake.leftCount, "row")} left out`}>
          <ul className="max-h-52 space-y-0.5 overflow-y-auto text-small text-pine-soft">
            {p.intake.left.map((x) => (
              <li key={x.at}>
                Row {x.at}, “{x.text}”: {LEFT_OUT[x.why]}
              </li>
            ))}
            {p.intake.leftCount > p.intake.left.length && <li>And {p.intake.leftCount - p.intake.left.length} more.</li>}
          </ul>
        </Part>
      )}
      <Becomes {...{ purpose, preview: p }} />
    </>
  );
}

function Unknown({ preview: p, names, matching: { matches }, set }: Omit<PreviewProps, "purpose">) {
  // What the library had for a name is still offered once it was taken.
  const [known] = useState(() => new Map<string, { key: string; name: string }>());
  for (const u of p.intake.unknown) if (u.library) known.set(u.name, u.library);
  const fromLibrary = p.intake.unknown.filter((u) => u.library && !matches[u.name]);
  return (
    <UnknownNames
      title="Names the shelf doesn't know"
      aside={
        fromLibrary.length > 0 && (
          <button
            type="button"
            className="pressable"
            onClick={() =>
              set({ matches: { ...matches, ...Object.fromEntries(fromLibrary.map((u) => [u.name, `library:${u.library!.key}`])) } })
            }
          >
            Take {counted(fromLibrary.length, "name")} from the library
          </button>
        )
      }
      unknown={p.intake.unknown}
      matches={matches}
      say={(said) => set({ matches: said })}
      options={(name) => materialOptions(names, known.get(name))}
    />
  );
}

function Becomes({ purpose, preview: p }: Pick<PreviewProps, "purpose" | "preview">) {
  const { currency } = useWorkshop();
  const { shown, lines } = p.intake;
  if (shown.length === 0) return null;
  return (
    <Part title="What it becomes">
      <Table
        rows={shown}
        by={(l) => l.row}
        columns={[
          { head: "Material", plain: true, cell: (l) => l.material },
          { head: "Row", cell: (l) => l.row },
          {
            head: "Packs",
            cell: (l) => (
              <>
                {l.packs} × {l.packSize}
                {l.back && <strong className="text-berry"> sent back</strong>}
              </>
            ),
          },
          {
            head: purpose === "receipt" ? "From" : "Bought",
            cell: (l) => (
              <>
                {l.supplier && `${l.supplier}, `}
                {l.day ? <When day={l.day} /> : "not known"}
              </>
            ),
          },
          { head: "Best before", cell: (l) => <When day={l.bestBefore} /> },
          { head: "Price of all", as: "figure", cell: (l) => (l.price === null ? "not known" : money(l.price, l.currency || currency)) },
        ]}
      />
      {lines > shown.length && <p className="pt-2 text-pine-soft">And {counted(lines - shown.length, "more line")} like these.</p>}
    </Part>
  );
}
