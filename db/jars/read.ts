/** Jars: the wall of them, one whole, and what the workshop's strainings teach. */
import { lookThrough } from "#core/material/lookThrough";
import type { Straining } from "#core/infusion/absorption";
import type { Lot } from "#core/stock/lots";
import type { JarLot } from "#core/infusion/plan";
import { micros, mg, type Micros } from "#core/measure/exact";
import { and, asc, desc, eq, inArray, isNotNull, isNull, sql, type Placeholder } from "drizzle-orm";
import { readNumber, isOnHold, sqlNumber, sqlText, sqlTextOrNull } from "../columnsOf.ts";
import type { Reads } from "../client.ts";
import { LISTED_AT_MOST } from "../lists.ts";
import { afterCorrections, hasStock, lotColumns } from "../ledger/lots.ts";
import { anyNamed, anyOf, normalizeNames } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { jar, jarEvent, jarPart, lot, material, movement } from "../schema.ts";

export type JarRow = typeof jar.$inferSelect;

// Written out: in a query of one table a column loses its table, and would be ambiguous inside these.
const own = sql.raw('"jar"."id"');

const columns = {
  jar,
  oil: sqlNumber(sql`coalesce((select sum(p.qty) from ${jarPart} p where p.jar_id = ${own} and p.role = 'carrier'), 0)`),
  herb: sqlNumber(sql`coalesce((select sum(p.qty) from ${jarPart} p where p.jar_id = ${own} and p.role = 'herb'), 0)`),
  contents: sqlText(sql`(select string_agg(distinct p.name, ', ') from ${jarPart} p where p.jar_id = ${own} and p.role = 'herb')`),
  carriers: sqlText(sql`(select string_agg(distinct p.name, ', ') from ${jarPart} p where p.jar_id = ${own} and p.role = 'carrier')`),
  shaken: sqlTextOrNull(sql`(select max(e.day)::text from ${jarEvent} e where e.jar_id = ${own} and e.kind = 'shaken')`),
};

/** Jars on the wall, the one ready first in front. */
export const steepingJars = (db: Reads) =>
  runPrepared(db, "steeping_jars", {}, () =>
    db
      .select(columns)
      .from(jar)
      .where(and(isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId)))
      .orderBy(asc(jar.best), asc(jar.id)),
  );

/** Jars strained or written off, newest first. */
export const pastJars = (db: Reads, most = LISTED_AT_MOST) =>
  runPrepared(db, "past_jars", { most }, (at) =>
    db
      .select(columns)
      .from(jar)
      .where(and(isNotNull(jar.filledActId), sql`(${jar.strainedActId} is not null or ${jar.spoiledActId} is not null)`))
      .orderBy(desc(jar.day), desc(jar.id))
      .limit(at.most),
  );

export type WallJar = Awaited<ReturnType<typeof steepingJars>>[number];

/** What everything that went into a jar cost, restatements included. */
export async function valueOfJar(db: Reads, jarId: number): Promise<Micros> {
  const [row] = await runPrepared(db, "value_of_jar", { jarId }, (at) =>
    db
      .select({ value: sqlNumber(sql`coalesce(-sum(${movement.value}), 0)`) })
      .from(movement)
      .where(and(eq(movement.jarId, at.jarId), sql`${movement.lotId} in (select p.lot_id from ${jarPart} p where p.jar_id = ${at.jarId})`)),
  );
  return micros(row!.value);
}

/** What is in a jar, part by part. */
export const partsOf = (db: Reads, jarId: number) => runPrepared(db, "parts_of_jar", { jarId }, (at) => parts(db, at.jarId));

const parts = (db: Reads, jarId: Placeholder) =>
  db
    .select({
      id: jarPart.id,
      role: jarPart.role,
      cut: jarPart.cut,
      qty: jarPart.qty,
      /** What it was called when it went in. */
      name: jarPart.name,
      material: {
        id: material.id,
        name: material.name,
        kind: material.kind,
        inci: material.inci,
        densities: material.densities,
        libraryKey: material.libraryKey,
        makeup: material.makeup,
        allergen: material.allergen,
        cautions: material.cautions,
        vegan: material.vegan,
        feel: material.feel,
        keepsSealed: material.keepsSealed,
      },
      lot: {
        id: lot.id,
        number: lot.number,
        onHand: lot.onHand,
        bestBefore: lot.bestBefore,
        dryness: lot.dryness,
        grown: lot.grown,
        holdReason: lot.holdReason,
        hold: isOnHold,
      },
    })
    .from(jarPart)
    .innerJoin(material, eq(material.id, jarPart.materialId))
    .innerJoin(lot, eq(lot.id, jarPart.lotId))
    .where(eq(jarPart.jarId, jarId))
    .orderBy(desc(jarPart.role), asc(jarPart.id));

export type JarPartRow = Awaited<ReturnType<typeof partsOf>>[number];

/** Bottles strained from a jar, as long as that straining is in effect. */
const bottlesOf = (db: Reads, strainedActId: number) =>
  runPrepared(db, "bottles_of_jar", { strainedActId }, (at) => bottles(db, at.strainedActId));

const bottles = (db: Reads, strainedActId: Placeholder) =>
  db
    .select({
      id: lot.id,
      number: lot.number,
      onHand: lot.onHand,
      bestBefore: lot.bestBefore,
      hold: isOnHold,
      materialId: lot.materialId,
      qty: sql`${movement.qty}`.mapWith((n) => mg(readNumber(n))),
      value: afterCorrections("value"),
    })
    .from(movement)
    .innerJoin(lot, eq(lot.id, movement.lotId))
    .where(and(eq(movement.actId, strainedActId), eq(movement.reason, "strained")))
    .orderBy(asc(lot.id));

/** One jar with its parts, what was done to it, its cost, and its bottles; null when there is none or its filling was taken back. */
export async function readJar(db: Reads, id: number) {
  const [row] = await runPrepared(db, "jar", { id }, (at) =>
    db
      .select(columns)
      .from(jar)
      .where(and(eq(jar.id, at.id), isNotNull(jar.filledActId))),
  );
  if (!row) return null;
  const [parts, events, value, bottles] = await Promise.all([
    partsOf(db, id),
    runPrepared(db, "events_of_jar", { id }, (at) =>
      db.select().from(jarEvent).where(eq(jarEvent.jarId, at.id)).orderBy(desc(jarEvent.id)),
    ),
    valueOfJar(db, id),
    row.jar.strainedActId === null ? [] : bottlesOf(db, row.jar.strainedActId),
  ]);
  return { ...row, parts: parts.map((p) => ({ ...p, material: lookThrough(p.material) })), events, value, bottles };
}

/** Strainings in effect, per herb in each jar, newest first: what the workshop's own figures rest on. */
export async function pastStrainings(db: Reads, herbs: readonly number[]): Promise<Straining[]> {
  if (herbs.length === 0) return [];
  const rows = await runPrepared(db, "past_strainings", { herbs }, (at) =>
    db
      .select({
        materialId: jarPart.materialId,
        cut: jarPart.cut,
        pressed: jar.pressed,
        back: jar.back,
        herb: columns.herb,
        oil: columns.oil,
      })
      .from(jarPart)
      .innerJoin(jar, eq(jar.id, jarPart.jarId))
      .where(and(eq(jarPart.role, "herb"), isNotNull(jar.strainedActId), anyOf(jarPart.materialId, at.herbs)))
      .orderBy(desc(jar.id))
      .limit(200),
  );
  return rows.map((r) => ({
    materialId: r.materialId,
    cut: r.cut ?? "cut",
    herb: mg(r.herb),
    kept: mg(r.oil - (r.back ?? 0)),
    pressed: r.pressed ?? false,
  }));
}

/** Lots of these herbs and oils that a jar can be filled from. */
export const lotsForJars = async (db: Reads, materials: readonly number[]): Promise<JarLot[]> =>
  materials.length === 0
    ? []
    : runPrepared(db, "lots_for_jars", { materials }, (at) =>
        db
          .select({ ...lotColumns, dryness: lot.dryness, grown: lot.grown })
          .from(lot)
          .where(and(hasStock, anyOf(lot.materialId, at.materials))),
      );

/** A lot of oil by its material's name and its number: "Olive oil · OO-3". */
export interface OilLot extends Lot {
  name: string;
}

/** Lots of liquid and infused oils that aren't on hold, by what they are of and their number; of these names in whatever case, or all. */
export async function oilLots(db: Reads, names?: readonly string[]): Promise<OilLot[]> {
  if (names?.length === 0) return [];
  const name = sqlText(sql`${material.name} || ' · ' || ${lot.number}`);
  return runPrepared(db, names ? "oil_lots_named" : "oil_lots", { names: normalizeNames(names ?? []) }, (at) =>
    db
      .select({ ...lotColumns, name })
      .from(lot)
      .innerJoin(material, eq(material.id, lot.materialId))
      .where(and(hasStock, isNull(lot.holdReason), inArray(material.kind, ["oil", "infusedOil"]), names && anyNamed(name, at.names))),
  );
}
