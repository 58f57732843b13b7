/** What is to be minded of a product or a batch, by the materials in it. */
import { lookThrough } from "#core/material/lookThrough";
import { kind } from "#core/material/kinds";
import { mindedOf, type Minded } from "#core/material/minded";
import { materialsNamed } from "#db/shelf/materials";
import { db } from "../server/workshop.server.ts";

/**
 * What is known of their risks today, whenever it was made.
 * @param names by material, of something made before: what each was called then @param ids packaging among them brings nothing
 */
export async function mindedIn(ids: readonly number[], names: ReadonlyMap<number, string> = new Map()): Promise<Minded> {
  // In the order they went in, whatever they are called by now.
  const materials = (await materialsNamed(db(), ids, [])).sort((a, b) => ids.indexOf(a.id) - ids.indexOf(b.id));
  return mindedOf(
    materials.filter((m) => kind(m.kind).group === "ingredient").map((m) => ({ ...lookThrough(m), name: names.get(m.id) ?? m.name })),
  );
}
