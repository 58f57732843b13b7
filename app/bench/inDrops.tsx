/** A weight too small for the scale, counted in drops: of this bottle, or of a pipette and of an orifice bottle while its drops are unknown. */
import { Link } from "react-router";
import { inDrops } from "#core/measure/drops";
import type { Mg } from "#core/measure/exact";

/** A material that can be dripped: its density, mg/mL, and the drops to the mL its facts have. */
export interface Liquid {
  materialId: number;
  density: number;
  counts: number | null;
}

interface Props {
  materialId: number;
  liquids: readonly Liquid[];
  lot: { dropsPerMl?: number | null } | undefined;
  weight: Mg;
  /** Of the scale. */
  step: Mg;
}

/** A small weight in drops, in words; null where it isn't counted so. */
export function sayInDrops({ materialId, liquids, lot, weight, step }: Props): string | null {
  const liquid = liquids.find((l) => l.materialId === materialId);
  const said = lot?.dropsPerMl ?? null;
  const [drops, small] = liquid ? inDrops(weight, step, liquid, said) : [];
  if (drops === undefined) return null;
  return `Some ${drops} drops${said !== null ? " of this bottle" : ""}${small === undefined ? "" : ` from a pipette, ${small} from an orifice bottle`}`;
}

export function InDrops(of: Props) {
  const words = sayInDrops(of);
  if (words === null) return null;
  const { materialId, lot } = of;
  return (
    <p className="font-sans text-small font-normal text-pine-soft">
      {words}
      {(lot?.dropsPerMl ?? null) === null && (
        <span className="no-print">
          .{" "}
          <Link to={`/shelf/${materialId}`} className="pressable">
            Say how this one drips
          </Link>
        </span>
      )}
    </p>
  );
}
