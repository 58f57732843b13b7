/** Spoon and finger tests of recipes, and the constants that they give the workshop's own firmness model. */
import { lessonsOf } from "#core/batch/finishing/spoon";
import { mg } from "#core/measure/exact";
import { FEELS, feelRange, type Feel } from "#core/firmness/words";
import { fitFirmness, type Fitted, type FirmnessTest } from "#core/firmness/fit";
import { setsBy } from "#core/firmness/solids";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { and, asc, desc, eq, gt, isNotNull, isNull } from "drizzle-orm";
import { object } from "yup";
import { isEffective } from "../ledger/effective.ts";
import { defineAct } from "../act/define.ts";
import { undoId } from "../act/left.ts";
import type { Db, Reads } from "../client.ts";
import { groupBy } from "#core/collect";
import { cachedUntilWrite } from "../cache.ts";
import { anyOf } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { batch, batchCheck, batchEvent, batchTake, firmnessTest, material, recipeLine, recipeVersion } from "../schema.ts";

export interface FirmnessIn {
  recipeId: number;
  /** The version that was made. */
  n: number;
  day: Day;
  celsius: number;
  feel: Feel;
  note: string;
}

/** Notes what was felt. @throws Refused when there is no such version */
export const noteFirmness = defineAct({
  kind: "noteFirmness",
  run: async (tx, { recipeId, n, ...felt }: FirmnessIn) => {
    const [version] = await tx
      .select({ id: recipeVersion.id, name: recipeVersion.name })
      .from(recipeVersion)
      .where(and(eq(recipeVersion.recipeId, recipeId), eq(recipeVersion.n, n)))
      .for("key share");
    if (!version) throw Refused.one("", "That version isn't here any more.");
    const [row] = await tx
      .insert(firmnessTest)
      .values({ ...felt, versionId: version.id })
      .returning({ id: firmnessTest.id });
    return {
      path: `/recipes/${recipeId}`,
      summary: `Noted: ${version.name} ${FEELS[felt.feel].say} at ${felt.celsius} °C`,
      about: [{ kind: "recipe", id: recipeId }],
      leaves: { id: row!.id },
    };
  },
  leaves: object({ id: undoId() }),
  back: async (tx, { id }) => {
    await tx.delete(firmnessTest).where(eq(firmnessTest.id, id));
  },
});

/** A recipe's tests, newest first. */
export const firmnessTestsOf = (db: Reads, recipeId: number) =>
  runPrepared(db, "firmness_tests", { recipeId }, (at) =>
    db
      .select({
        id: firmnessTest.id,
        n: recipeVersion.n,
        day: firmnessTest.day,
        celsius: firmnessTest.celsius,
        feel: firmnessTest.feel,
        note: firmnessTest.note,
      })
      .from(firmnessTest)
      .innerJoin(recipeVersion, eq(recipeVersion.id, firmnessTest.versionId))
      .where(eq(recipeVersion.recipeId, at.recipeId))
      .orderBy(desc(firmnessTest.day), desc(firmnessTest.id)),
  );

/** The newest tests of the workshop teach it; older ones were other hands and other crops. */
const TAUGHT_BY = 300;

/** Finger tests of poured batches, once cold: of the whole pot. */
const cold = (db: Reads) =>
  db
    .select({ id: batchCheck.id, batchId: batchCheck.batchId, verdict: batchCheck.firm, type: recipeVersion.type })
    .from(batchCheck)
    .innerJoin(batch, eq(batch.id, batchCheck.batchId))
    .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
    .where(and(isNotNull(batchCheck.firm), isNotNull(batch.pouredActId), isEffective(batchCheck.actId)))
    .orderBy(desc(batchCheck.id))
    .limit(TAUGHT_BY);

/**
 * Spoon tests of pots as they were by then, and finger tests of poured batches: what was weighed before, and how firm the word makes
 * that kind of product.
 */
async function spoons(db: Reads): Promise<FirmnessTest[]> {
  const { kind, libraryKey, meltFrom, meltTo, makeup } = material;
  const hot = await db
    .select({ id: batchEvent.id, batchId: batchEvent.batchId, at: batchEvent.at, verdict: batchEvent.verdict, type: recipeVersion.type })
    .from(batchEvent)
    .innerJoin(batch, eq(batch.id, batchEvent.batchId))
    .innerJoin(recipeVersion, eq(recipeVersion.id, batch.versionId))
    .where(and(eq(batchEvent.kind, "test"), isNotNull(batchEvent.verdict), isNull(batchEvent.struckAt)))
    .orderBy(desc(batchEvent.id))
    .limit(TAUGHT_BY);
  const said = [...hot, ...(await cold(db)).map((c) => ({ ...c, at: null }))];
  if (said.length === 0) return [];
  const weighed = await db
    .select({ batchId: batchTake.batchId, weight: batchTake.weighed, at: batchTake.weighedAt, kind, libraryKey, meltFrom, meltTo, makeup })
    .from(batchTake)
    .innerJoin(material, eq(material.id, batchTake.materialId))
    .where(
      and(
        anyOf(
          batchTake.batchId,
          said.map((s) => s.batchId),
        ),
        isNull(batchTake.sizeId),
        gt(batchTake.weighed, mg(0)),
      ),
    )
    .orderBy(asc(batchTake.id));
  const inPot = groupBy(weighed, (w) => w.batchId);
  return said.flatMap(({ batchId, at, verdict, type }) => {
    const lines = (inPot.get(batchId) ?? []).flatMap((w) =>
      at === null || (w.at && w.at <= at) ? [{ weight: w.weight!, sets: setsBy(w) }] : [],
    );
    return lines.length > 0 && verdict ? [lessonsOf(verdict, type, lines)] : [];
  });
}

async function fit(db: Reads): Promise<Fitted> {
  const atBench = await spoons(db);
  const tests = await db
    .select({ versionId: firmnessTest.versionId, celsius: firmnessTest.celsius, feel: firmnessTest.feel })
    .from(firmnessTest)
    .orderBy(desc(firmnessTest.id))
    .limit(TAUGHT_BY);
  if (tests.length === 0) return fitFirmness(atBench);
  const { kind, libraryKey, meltFrom, meltTo, makeup } = material;
  const lines = await db
    .select({ versionId: recipeLine.versionId, weight: recipeLine.weight, kind, libraryKey, meltFrom, meltTo, makeup })
    .from(recipeLine)
    .innerJoin(material, eq(material.id, recipeLine.materialId))
    .where(
      anyOf(
        recipeLine.versionId,
        tests.map((t) => t.versionId),
      ),
    )
    .orderBy(asc(recipeLine.id));
  const linesOf = groupBy(lines, (l) => l.versionId);
  const felt = tests.map(({ versionId, celsius, feel }): FirmnessTest => ({
    lines: (linesOf.get(versionId) ?? []).map((l) => ({ weight: l.weight, sets: setsBy(l) })),
    says: [{ celsius, part: "all", within: feelRange(feel) }],
  }));
  return fitFirmness([...felt, ...atBench]);
}

/** What the workshop has taught the model, worked out again once anything was written. @param db not a transaction */
export const firmnessLearned = (db: Db): Promise<Fitted> => cachedUntilWrite(db, "firmness", "", () => fit(db));
