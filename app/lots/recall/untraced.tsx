/** Finished lots that no trace reaches: they were made before the books began, and nobody here knows what of. */
import { LotTag } from "../../ui/figures/amounts.tsx";
import type { Untraced as Lots } from "#db/listsIn/finished";

export const Untraced = ({ lots }: { lots: Lots }) =>
  lots.length === 0 ? null : (
    <p className="mb-4 rounded bg-honey-wash px-4 py-2 text-honey">
      {lots.length === 1 ? "One lot was" : `${lots.length} lots were`} made before the books began: what is in{" "}
      {lots.length === 1 ? "it" : "them"} isn’t known here, so look at the labels.{" "}
      <span className="inline-flex flex-wrap gap-x-3">
        {lots.map((l) => (
          <span key={l.id}>
            <LotTag lot={l} /> {l.name}, {l.label}
          </span>
        ))}
      </span>
    </p>
  );
