/** Materials and containers out of a list, as one act: taken back as long as nothing was made, bought or written of them. */
import type { MaterialLine } from "#core/listsIn/materials";
import { KINDS } from "#core/material/kinds";
import { libraryEntry } from "#core/material/library";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import { array, object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId } from "../act/left.ts";
import { requireNoLaterActs, theseIds } from "../ledger/effective.ts";
import { inChunks } from "../pieces.ts";
import { material } from "../schema.ts";
import { deleteUnused, materialFromLibrary } from "../shelf/keepMaterial.ts";

export type AddMaterialsIn = { materials: readonly Omit<MaterialLine, "row">[] };

/** What a material of a list is on the shelf: the library's figures where it is one of its entries, what the list says on top. */
function valuesOf({
  name,
  libraryKey,
  kind,
  brimMl,
  keepsSealed,
  allergen,
  note,
}: AddMaterialsIn["materials"][number]): typeof material.$inferInsert {
  const entry = libraryEntry(libraryKey);
  const said = {
    ...(brimMl === null ? {} : { brimMl }),
    ...(keepsSealed === null ? {} : { keepsSealed }),
    ...(allergen === "" ? {} : { allergen }),
    ...(note === "" ? {} : { note }),
  };
  return { ...(entry ? materialFromLibrary(entry) : { name, kind, densities: KINDS[kind].start }), ...said };
}

/** Puts the materials of a list on the shelf, all or none. @throws Refused for a name that is taken */
export const addMaterials = defineAct({
  kind: "addMaterials",
  run: async (tx, { materials }: AddMaterialsIn) => {
    if (materials.length === 0) throw Refused.one("", "Enter at least one material.");
    const ids: number[] = [];
    for (const piece of inChunks(materials)) {
      const rows = await tx
        .insert(material)
        .values(piece.map(valuesOf))
        .onConflictDoNothing()
        .returning({ id: material.id, name: material.name });
      const put = new Set(rows.map((r) => r.name));
      const twice = piece.find((m) => !put.delete(m.name));
      if (twice) throw Refused.one("", `There is already a material called ${twice.name}. Look at the list again.`);
      ids.push(...rows.map((r) => r.id));
    }
    return {
      path: "/shelf",
      summary: `Put ${counted(ids.length, "material")} on the shelf from a list`,
      about: ids.map((id) => ({ kind: "material" as const, id, changes: true })),
      leaves: { ids },
    };
  },
  leaves: object({ ids: array().of(undoId()).required() }),
  back: async (tx, { ids }, { undoes }) => {
    const whole = { kind: "material", among: theseIds(ids) } as const;
    await requireNoLaterActs(tx, whole, undoes, ["saveMaterial", "deleteMaterial"], "One of these materials has been saved since.");
    for (const id of ids) await deleteUnused(tx, id);
    return "/shelf";
  },
});
