/** The printed weigh sheet's lines to fill in by hand: one for each field of the screen, with what was typed already. */
import type { ReactNode } from "react";

interface Props {
  sizes: readonly { productId: number; label: string; planned: number; units: string }[];
  leftover: string;
  /** As planned, until another is chosen. */
  minutes: string;
  note: string;
}

/** A line to write on, or what was typed; what is wanted of it before, its unit after it. */
function Written({ label, value, unit }: { label: ReactNode; value: string; unit?: string }) {
  return (
    <div className="flex items-baseline justify-between gap-4 py-1">
      <dt>{label}</dt>
      <dd className="flex items-baseline gap-1.5">
        {value || <span className="to-write" />}
        {unit && !value && unit}
      </dd>
    </div>
  );
}

export function ByHand({ sizes, leftover, minutes, note }: Props) {
  return (
    <dl className="hidden columns-2 gap-8 print:block">
      {sizes
        .filter((s) => s.planned > 0)
        .map((s) => (
          <Written key={s.productId} label={`Filled, ${s.label}`} value={s.units} unit={`of ${s.planned}`} />
        ))}
      <Written label="Left in the jug" value={leftover} unit="g" />
      <Written label={`Minutes of work${minutes ? `, ${minutes} planned` : ""}`} value="" unit="min" />
      <Written label="Poured at" value="" unit="°C" />
      <Written label="Day and hour" value="" />
      <div className="[column-span:all]">
        <dt className="pt-1">What happened</dt>
        <dd>
          {note ? <p className="whitespace-pre-line">{note}</p> : [1, 2].map((n) => <span key={n} className="to-write mt-4 block!" />)}
        </dd>
      </div>
    </dl>
  );
}
