/** A record's facts as pairs of a name and a value: how a closed sheet is shown. */
import type { ReactNode } from "react";

/** @param rows pairs; one whose second is empty is left out */
export function Facts({ rows }: { rows: readonly (readonly [name: string, is: ReactNode])[] }) {
  const known = rows.filter(([, is]) => is !== null && is !== undefined && is !== "" && is !== false);
  return (
    <dl className="grid gap-x-8 gap-y-1 sm:grid-cols-2">
      {known.map(([name, is]) => (
        <div key={name} className="flex justify-between gap-4 border-b border-rule py-1">
          <dt className="text-pine-soft">{name}</dt>
          <dd className="text-right">{is}</dd>
        </div>
      ))}
    </dl>
  );
}
