/** Filling a jar, and topping it up: herb and oil leave their lots and stand in the jar until it is strained. */
import type { Cut } from "#core/infusion/absorption";
import type { MethodId, Ready } from "#core/infusion/methods";
import { jarWarnings, mayFill } from "#core/infusion/warnings";
import { numberer, numberHead } from "#core/lot/number";
import type { Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import type { Day } from "#core/when";
import { and, eq, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import { perform, type Doing, type Done } from "../act.ts";
import type { Db, Tx } from "../client.ts";
import { draw, lockLots } from "../ledger.ts";
import { jar, jarEvent, jarPart, lot, material, movement } from "../schema.ts";
import { readSettings } from "../settings.ts";

export interface JarPartIn {
  role: "herb" | "carrier";
  materialId: number;
  lotId: number;
  cut: Cut | null;
  qty: Mg;
}

export interface FillIn {
  name: string;
  method: MethodId;
  methodName: string;
  vessel: string;
  vesselMl: number | null;
  /** Room herb and oil take in it, and the loose herb alone. */
  fillMl: number | null;
  looseMl: number | null;
  day: Day;
  ready: Ready;
  wished: Day | null;
  heatMinutes: number | null;
  why: string;
  note: string;
  expected: Mg;
  parts: readonly JarPartIn[];
}

/** The lots of a jar's parts with their facts. @throws Refused beside a part whose lot is gone or of something else */
async function factsOf(tx: Tx, parts: readonly JarPartIn[]) {
  const rows = await tx
    .select({ lot, material })
    .from(lot)
    .innerJoin(material, eq(material.id, lot.materialId))
    .where(
      inArray(
        lot.id,
        parts.map((p) => p.lotId),
      ),
    );
  const byLot = new Map(rows.map((r) => [r.lot.id, r]));
  return parts.map((p, i) => {
    const found = byLot.get(p.lotId);
    if (!found || found.material.id !== p.materialId)
      throw Refused.one(`parts.${i}.lot`, "That lot isn't here, or is of another material.");
    if (found.lot.holdReason !== null) throw Refused.one(`parts.${i}.lot`, `Lot ${found.lot.number} is on hold: ${found.lot.holdReason}.`);
    return found;
  });
}

/** The next jar number of the scheme that no jar has. */
async function jarNumber(tx: Tx, day: Day): Promise<string> {
  const { jarScheme } = await readSettings(tx);
  await tx.execute(sql`select pg_advisory_xact_lock(hashtext('jar numbers'))`);
  const head = numberHead(jarScheme, { code: "J", day });
  const taken = await tx
    .select({ number: jar.number })
    .from(jar)
    .where(sql`starts_with(${jar.number}, ${head})`);
  return numberer(jarScheme, day, new Set(taken.map((t) => t.number)))("J");
}

/**
 * Fills a jar as one act.
 * @throws Refused by field: not enough in a lot, or a warning that needs a reason (`why`) or forbids it
 */
export function fillJar(db: Db, input: FillIn, doing: Omit<Doing, "day">): Promise<Done> {
  return perform(db, "fillJar", { ...doing, day: input.day }, async (tx, actId) => {
    if (!input.parts.some((p) => p.role === "herb")) throw Refused.one("herbs.0.material", "Choose the herb.");
    if (!input.parts.some((p) => p.role === "carrier")) throw Refused.one("carrier", "Choose the oil.");
    const facts = await factsOf(tx, input.parts);
    const of = (role: JarPartIn["role"]) => facts.filter((_, i) => input.parts[i]!.role === role);
    const warnings = jarWarnings({
      ...input,
      herbs: of("herb").map((f) => ({ name: f.material.name, dryness: f.lot.dryness, cautions: f.material.cautions })),
      carriers: of("carrier").map((f) => ({ ...f.material, bestBefore: f.lot.bestBefore })),
    });
    const may = mayFill(warnings, input.why);
    if (!may.ok) throw Refused.one("why", `${may.warning.why} ${may.warning.instead}`);

    const [made] = await tx
      .insert(jar)
      .values({ ...input, ...input.ready, number: await jarNumber(tx, input.day), filledActId: actId })
      .returning({ id: jar.id, number: jar.number });
    const locked = await lockLots(
      tx,
      input.parts.map((p) => p.lotId),
    );
    const draws = input.parts.map((p, i) =>
      draw(locked, p.lotId, p.qty, `parts.${i}.qty`, grams, { actId, reason: "infused", jarId: made!.id }),
    );
    await tx.insert(movement).values(draws);
    await tx.insert(jarPart).values(input.parts.map((p) => ({ ...p, jarId: made!.id, actId })));
    return { path: `/jars/${made!.id}`, summary: `Filled jar ${made!.number}: ${input.name}` };
  });
}

/** A jar that is standing, held for this act. @throws Refused when it was strained or written off */
export async function standing(tx: Tx, jarId: number) {
  const [row] = await tx
    .select()
    .from(jar)
    .where(and(eq(jar.id, jarId), isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId)))
    .for("update");
  if (!row) throw Refused.one("", "This jar isn't standing any more.");
  return row;
}

/** Tops a jar up with oil from a lot. @throws Refused when the lot hasn't got that much, or isn't an oil */
export function topUp(db: Db, input: { jarId: number; lotId: number; qty: Mg }, doing: Doing): Promise<Done> {
  return perform(db, "topUp", doing, async (tx, actId) => {
    const j = await standing(tx, input.jarId);
    const [of] = await tx
      .select({ id: material.id, kind: material.kind, name: material.name })
      .from(lot)
      .innerJoin(material, eq(material.id, lot.materialId))
      .where(eq(lot.id, input.lotId));
    if (!of || !["oil", "infusedOil", "softButter", "hardButter"].includes(of.kind)) throw Refused.one("lot", "Choose a lot of oil.");
    const locked = await lockLots(tx, [input.lotId]);
    const move = draw(locked, input.lotId, input.qty, "qty", grams, { actId, reason: "infused", jarId: j.id });
    await tx.insert(movement).values(move);
    await tx
      .insert(jarPart)
      .values({ jarId: j.id, actId, materialId: of.id, lotId: input.lotId, role: "carrier", cut: null, qty: input.qty });
    await tx.insert(jarEvent).values({ jarId: j.id, kind: "toppedUp", day: doing.day, note: `${grams(input.qty)} of ${of.name}`, actId });
    return { path: `/jars/${j.id}`, summary: `Topped up ${j.number} with ${grams(input.qty)} of ${of.name}` };
  });
}

/** Notes a shake, a temperature or a word, of one jar or several. */
export async function tend(
  db: Db,
  jarIds: readonly number[],
  what: { kind: "shaken" | "temperature" | "note"; day: Day; celsius?: number | null; note?: string },
): Promise<void> {
  await db.transaction(async (tx) => {
    for (const id of [...new Set(jarIds)].sort((a, b) => a - b)) {
      await standing(tx, id);
      await tx.insert(jarEvent).values({ jarId: id, kind: what.kind, day: what.day, celsius: what.celsius ?? null, note: what.note ?? "" });
    }
  });
}

/** Turns a jar's heat on, with how long it is meant to run, or off. */
export async function heat(db: Db, jarId: number, minutes: number | null, day: Day): Promise<void> {
  await db.transaction(async (tx) => {
    const j = await standing(tx, jarId);
    if (minutes === null && j.heatOn === null) return;
    await tx
      .update(jar)
      .set(minutes === null ? { heatOn: null } : { heatOn: sql`now()`, heatMinutes: minutes })
      .where(eq(jar.id, jarId));
    const ran =
      minutes === null
        ? `${counted(Math.round((Date.now() - j.heatOn!.getTime()) / 60_000), "minute")}`
        : `for ${counted(minutes, "minute")}`;
    await tx.insert(jarEvent).values({ jarId, kind: minutes === null ? "heatOff" : "heatOn", day, note: ran });
  });
}

/** Jars whose heat is on, for the timers every screen shows. */
export const heatedJars = (db: Db) =>
  db
    .select({ id: jar.id, number: jar.number, name: jar.name, heatOn: jar.heatOn, heatMinutes: jar.heatMinutes })
    .from(jar)
    .where(and(isNotNull(jar.heatOn), isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId)));
