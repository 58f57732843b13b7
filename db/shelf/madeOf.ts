/** Materials the workroom makes itself: on the shelf under a name, with the facts of what they are made of. */
import { lookThrough } from "#core/material/lookThrough";
import { kind, type KindId } from "#core/material/kinds";
import { Refused } from "#core/refused";
import { eq, sql } from "drizzle-orm";
import type { Tx } from "../client.ts";
import { material } from "../schema.ts";
import type { MaterialRow } from "./materials.ts";

type Facts = Pick<MaterialRow, "inci" | "allergen" | "cautions" | "vegan">;
type Part = Facts & Pick<MaterialRow, "libraryKey" | "makeup">;

const unique = (texts: readonly string[]): string => [...new Set(texts.filter(Boolean))].join(", ");

/** What is true of the whole because it is of a part. @param parts most of all first */
export function factsOfParts(of: readonly Part[]): Facts {
  const parts = of.map(lookThrough);
  return {
    inci: unique(parts.map((p) => p.inci)),
    allergen: unique(parts.map((p) => p.allergen)),
    // Of what it was before: a dry herb in oil is no food plant under oil any more, nor does it burn or dust as it did.
    cautions: [...new Set(parts.flatMap((p) => p.cautions))].filter((c) => c !== "foodPlant" && c !== "flammable" && c !== "dust"),
    vegan: parts.some((p) => p.vegan === "no") ? "no" : parts.every((p) => p.vegan === "yes") ? "yes" : "",
  };
}

const called = async (tx: Tx, name: string) =>
  (
    await tx
      .select({ id: material.id, kind: material.kind })
      .from(material)
      .where(sql`lower(${material.name}) = lower(${name})`)
  )[0];

type NewMaterial = typeof material.$inferInsert;

/**
 * The material of a name, made where the shelf hasn't got it yet.
 * @param fits kinds it may be where it is there @param otherwise what to do where it is another's name
 * @throws Refused beside `field` when the name is another kind's
 */
export async function materialMade(
  tx: Tx,
  facts: NewMaterial,
  fits: readonly KindId[],
  field: string,
  otherwise: string,
): Promise<{ id: number; made: boolean }> {
  const { name } = facts;
  const there = await called(tx, name);
  // Nothing comes back where another window has just done so.
  const [made] = there ? [] : await tx.insert(material).values(facts).onConflictDoNothing().returning({ id: material.id });
  if (made) return { ...made, made: true };
  const have = there ?? (await called(tx, name))!;
  if (!fits.includes(have.kind))
    throw Refused.one(field, `${name} is already the name of ${kind(have.kind).label.toLowerCase()} on your shelf. ${otherwise}`, [
      { to: `/shelf/${have.id}`, name },
    ]);
  return { id: have.id, made: false };
}

/** What a base is made of by now, as the pot had it that was melted down last; what it may do to skin stays said. */
export async function madeOfNow(tx: Tx, id: number, { makeup, allergen, cautions }: Pick<NewMaterial, "makeup" | "allergen" | "cautions">) {
  const [was] = await tx.select().from(material).where(eq(material.id, id)).for("no key update");
  const all = unique([...was!.allergen.split(", "), ...(allergen ?? "").split(", ")]);
  await tx
    .update(material)
    .set({ makeup, allergen: all, cautions: [...new Set([...was!.cautions, ...(cautions ?? [])])] })
    .where(eq(material.id, id));
}
