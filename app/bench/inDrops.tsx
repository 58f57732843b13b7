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

export function InDrops({ materialId, liquids, lot, weight, step }: Props) {
  const liquid = liquids.find((l) => l.materialId === materialId);
  const said = lot?.dropsPerMl ?? null;
  const [drops, small] = liquid ? inDrops(weight, step, liquid, said) : [];
  if (drops === undefined) return null;
  return (
    <p className="font-sans text-small font-normal text-pine-soft">
      Some {drops} drops{said !== null && " of this bottle"}
      {small !== undefined && ` from a pipette, ${small} from an orifice bottle`}
      {said === null && (
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
