/** What is known of a material, each figure with where it comes from. */
import { CAUTIONS } from "#core/material/cautions";
import { KEPT } from "#core/material/facts";
import { libraryEntry, originsOf } from "#core/material/library";
import { SCENT_NOTES, SKIN_FEELS, SMELLS } from "#core/material/senses";
import { counted } from "#core/words";
import type { MaterialRow } from "#db/shelf/materials";
import { Part } from "../../ui/sheet/sheet.tsx";

const months = (n: number | null): string | null => (n === null ? null : counted(n, "month"));

export function MaterialFactsPart({ material: m, lid }: { material: MaterialRow; lid: string | null }) {
  const rows: (readonly [string, string | null])[] = [
    ["Botanical name", m.botanical || null],
    ["Melts at", m.meltFrom !== null || m.meltTo !== null ? `${m.meltFrom ?? "?"}–${m.meltTo ?? "?"} °C` : null],
    ["Keeps unopened", months(m.keepsSealed)],
    ["Keeps once opened", months(m.keepsOpened)],
    ["Storage", m.kept ? KEPT[m.kept] : null],
    ["Vegan", m.vegan || null],
    ["Refined", m.refined || null],
    ["In a blend", m.scentNote ? SCENT_NOTES[m.scentNote] : null],
    ["On the skin", m.feel ? SKIN_FEELS[m.feel] : null],
    ["Smells", m.smell ? SMELLS[m.smell] : null],
    ["Made of", m.madeOf || null],
    ["Lid that fits", lid],
    ["Cautions", m.cautions.length ? m.cautions.map((c) => CAUTIONS[c].label).join(", ") : null],
    ["Note", m.note || null],
  ];
  const known = rows.filter(([, text]) => text !== null);
  const origins = originsOf(m, libraryEntry(m.libraryKey));
  return (
    <Part title="Facts">
      <dl className="grid gap-x-8 gap-y-1 sm:grid-cols-2">
        {known.map(([name, text]) => (
          <div key={name} className="flex justify-between gap-4 border-b border-rule py-1">
            <dt className="text-pine-soft">{name}</dt>
            <dd className="text-right">{text}</dd>
          </div>
        ))}
      </dl>
      {origins.length > 0 && (
        <details className="mt-2 text-small">
          <summary className="text-pine-soft">Where its figures come from</summary>
          <ul className="mt-1 space-y-0.5">
            {origins.map((o) => (
              <li key={o.figure}>
                {o.figure}: <span className={o.source === "yours" ? "font-semibold" : "text-pine-soft"}>{o.source}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </Part>
  );
}
