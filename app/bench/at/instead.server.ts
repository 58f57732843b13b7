/** What stands on the shelf and could take the place of a material that ran out at the bench. */
import { setsBy } from "#core/firmness/solids";
import { likeKinds } from "#core/recipe/instead/standIn";
import { isScent } from "#core/scent/dilution";
import { isUsable } from "#core/stock/lots";
import { unspoken } from "#core/stock/spokenFor";
import { spokenFor } from "#db/bench/spokenFor";
import { today } from "#db/clock";
import { lotsOfMaterials } from "#db/ledger/lots";
import type { BatchSheet } from "#db/bench/read";
import { materialsOfKinds, type MaterialRow } from "#db/shelf/materials";
import { db } from "../../db.server.ts";

/** So many of those that stand in for one another, what there is most of first. */
const OFFERED = 6;

export async function insteadAtHand({ batch, takes }: BatchSheet, materials: ReadonlyMap<number, MaterialRow>) {
  const kinds = [...new Set(takes.flatMap((t) => likeKinds(materials.get(t.materialId)!.kind)))];
  const others = (await materialsOfKinds(db(), kinds)).filter((m) => !materials.has(m.id));
  const day = today();
  const [all, spoken] = await Promise.all([
    lotsOfMaterials(
      db(),
      others.map((m) => m.id),
    ),
    spokenFor(db(), batch.id),
  ]);
  const lots = unspoken(all, spoken, day).filter((l) => isUsable(l, day));
  return others
    .flatMap((m) => {
      const own = lots.filter((l) => l.of === m.id);
      const onHand = own.reduce((a, l) => a + l.onHand, 0);
      if (onHand === 0) return [];
      const value = own.reduce((a, l) => a + l.value, 0);
      return [
        {
          materialId: m.id,
          name: m.name,
          kind: m.kind,
          allergen: m.allergen,
          sets: setsBy(m),
          scent: isScent(m),
          onHand,
          perMg: value / onHand,
        },
      ];
    })
    .sort((a, b) => b.onHand - a.onHand)
    .filter((m, i, sorted) => sorted.slice(0, i).filter((x) => likeKinds(m.kind).includes(x.kind)).length < OFFERED);
}
