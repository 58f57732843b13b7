/** Oils that are made here: the jars that will give one, and what one was last steeped of. */
import type { MethodId } from "#core/infusion/methods";
import { and, asc, desc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import type { Reads } from "../client.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { jar, material } from "../schema.ts";
import { partsOf } from "./read.ts";

// A jar knows its oil by what that will be called: the shelf has it only once the jar is strained.
const ofThatName = sql`lower(${jar.name}) = lower(${material.name}) and ${material.kind} = 'infusedOil'`;

/** Jars that are steeping, with the material each will give, the one ready first in front. */
export const jarsGiving = async (db: Reads, materials: readonly number[]) =>
  runPrepared(db, "jars_giving", { materials }, (at) =>
    db
      .select({ jarId: jar.id, materialId: material.id, expected: jar.expected, earliest: jar.earliest })
      .from(jar)
      .innerJoin(material, ofThatName)
      .where(and(anyOf(material.id, at.materials), isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId)))
      .orderBy(asc(jar.earliest), asc(jar.id)),
  );

/** Which of these are steeped here, each with the method of its last jar. */
export async function steepedHere(db: Reads, materials: readonly number[]): Promise<Map<number, MethodId>> {
  const rows = await runPrepared(db, "steeped_here", { materials }, (at) =>
    db
      .selectDistinctOn([material.id], { id: material.id, method: jar.method })
      .from(material)
      .innerJoin(jar, ofThatName)
      .where(and(anyOf(material.id, at.materials), isNotNull(jar.filledActId)))
      .orderBy(material.id, desc(jar.id)),
  );
  return new Map(rows.map((r) => [r.id, r.method]));
}

/** An oil that is to be steeped: its name and, where it was steeped before, how and of what; null where there is no such oil. */
export async function lastSteeped(db: Reads, materialId: number) {
  const [last] = await runPrepared(db, "last_steeped", { materialId }, (at) =>
    db
      .select({ jarId: jar.id, name: material.name, method: jar.method })
      .from(material)
      .leftJoin(jar, and(ofThatName, isNotNull(jar.filledActId)))
      .where(and(eq(material.id, at.materialId), eq(material.kind, "infusedOil")))
      .orderBy(sql`${jar.id} desc nulls last`)
      .limit(1),
  );
  return last ? { ...last, parts: last.jarId === null ? [] : await partsOf(db, last.jarId) } : null;
}
