/** Filling a jar, and topping it up: herb and oil leave their lots and are in the jar until it is strained. */
import { lookThrough } from "#core/material/lookThrough";
import type { ActKind } from "#core/act/kinds";
import type { Cut } from "#core/infusion/absorption";
import type { MethodId, Ready } from "#core/infusion/methods";
import { jarWarnings, mayFill } from "#core/infusion/warnings";
import { numberer, numberHead } from "#core/lot/number";
import type { Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { counted, wordList } from "#core/words";
import type { Day } from "#core/when";
import { and, eq, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import { object, string } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId, undoIdOrNull } from "../act/left.ts";
import { requireNoLaterActs } from "../ledger/effective.ts";
import { cachedUntilWrite } from "../cache.ts";
import type { Db, Tx } from "../client.ts";
import { draw, lockLots, requireUsable, type LockedLot } from "../ledger/lots.ts";
import { jar, jarEvent, jarPart, lot, material, movement } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";

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

/** The lots of a jar's parts with their facts. @throws Refused beside a part whose lot is gone, of something else, or not to be used */
async function factsOf(tx: Tx, parts: readonly JarPartIn[], locked: ReadonlyMap<number, LockedLot>, day: Day) {
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
    requireUsable(locked, p.lotId, p.role, day, `parts.${i}.lot`);
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
export const fillJar = defineAct({
  kind: "fillJar",
  dayOf: (input: FillIn) => input.day,
  run: async (tx, input, { actId }) => {
    if (!input.parts.some((p) => p.role === "herb")) throw Refused.one("herbs.0.material", "Choose the herb.");
    if (!input.parts.some((p) => p.role === "carrier")) throw Refused.one("carrier", "Choose the oil.");
    const locked = await lockLots(
      tx,
      input.parts.map((p) => p.lotId),
    );
    const facts = await factsOf(tx, input.parts, locked, input.day);
    const of = (role: JarPartIn["role"]) => facts.filter((_, i) => input.parts[i]!.role === role);
    const warnings = jarWarnings({
      ...input,
      herbs: of("herb").map((f) => ({ name: f.material.name, dryness: f.lot.dryness, cautions: lookThrough(f.material).cautions })),
      carriers: of("carrier").map((f) => ({ ...lookThrough(f.material), bestBefore: f.lot.bestBefore })),
    });
    const may = mayFill(warnings, input.why);
    if (!may.ok) throw Refused.one("why", `${may.warning.why} ${may.warning.instead}`);

    const [made] = await tx
      .insert(jar)
      .values({ ...input, ...input.ready, number: await jarNumber(tx, input.day), filledActId: actId })
      .returning({ id: jar.id, number: jar.number });
    const draws = input.parts.map((p, i) =>
      draw(locked, p.lotId, p.qty, `parts.${i}.qty`, grams, { actId, reason: "infused", jarId: made!.id }),
    );
    await tx.insert(movement).values(draws);
    await tx.insert(jarPart).values(input.parts.map((p, i) => ({ ...p, name: facts[i]!.material.name, jarId: made!.id, actId })));
    return {
      path: `/jars/${made!.id}`,
      summary: `Filled jar ${made!.number}: ${input.name}`,
      about: aboutJar(made!.id, input.parts),
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    const [filled] = await tx.select().from(jar).where(eq(jar.filledActId, undoes)).for("no key update");
    if (filled) await requireNoLaterActs(tx, { kind: "jar", id: filled.id }, undoes, [...ENDS, "topUp"], STRAINED_SINCE(filled.number));
    await tx.delete(jarPart).where(eq(jarPart.actId, undoes));
    await tx.update(jar).set({ filledActId: null }).where(eq(jar.filledActId, undoes));
    return "/jars";
  },
});

const ENDS = ["strain", "spoil"] as const satisfies readonly ActKind[];
const STRAINED_SINCE = (number: string): string => `Jar ${number} has been topped up, strained or written off since.`;
const aboutJar = (id: number, parts: readonly { materialId: number }[] = []) => [
  { kind: "jar" as const, id, changes: true },
  ...parts.map((p) => ({ kind: "material" as const, id: p.materialId })),
];

/** A jar that is steeping, held for this act. @throws Refused when it was strained or written off */
export async function steeping(tx: Tx, jarId: number) {
  const [row] = await tx
    .select()
    .from(jar)
    .where(and(eq(jar.id, jarId), isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId)))
    .for("no key update");
  if (!row) throw Refused.one("", "This jar isn't steeping any more.");
  return row;
}

export interface TopUpIn {
  jarId: number;
  lotId: number;
  qty: Mg;
}

/** Tops a jar up with oil from a lot. @throws Refused when the lot hasn't got that much, isn't an oil, or may not be used */
export const topUp = defineAct({
  kind: "topUp",
  run: async (tx, input: TopUpIn, { actId, day }) => {
    const j = await steeping(tx, input.jarId);
    const locked = await lockLots(tx, [input.lotId]);
    const { name, of } = requireUsable(locked, input.lotId, "carrier", day, "lot");
    const move = draw(locked, input.lotId, input.qty, "qty", grams, { actId, reason: "infused", jarId: j.id });
    await tx.insert(movement).values(move);
    await tx
      .insert(jarPart)
      .values({ jarId: j.id, actId, materialId: of, name, lotId: input.lotId, role: "carrier", cut: null, qty: input.qty });
    await tx.insert(jarEvent).values({ jarId: j.id, kind: "toppedUp", day, note: `${grams(input.qty)} of ${name}`, actId });
    return {
      path: `/jars/${j.id}`,
      summary: `Topped up ${j.number} with ${grams(input.qty)} of ${name}`,
      about: aboutJar(j.id, [{ materialId: of }]),
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    const [part] = await tx
      .select({ id: jar.id, number: jar.number })
      .from(jarPart)
      .innerJoin(jar, eq(jar.id, jarPart.jarId))
      .where(eq(jarPart.actId, undoes));
    if (part) await requireNoLaterActs(tx, { kind: "jar", id: part.id }, undoes, ENDS, STRAINED_SINCE(part.number));
    await tx.delete(jarPart).where(eq(jarPart.actId, undoes));
    await tx.delete(jarEvent).where(eq(jarEvent.actId, undoes));
  },
});

export interface TendIn {
  jarIds: readonly number[];
  kind: "shaken" | "temperature" | "note";
  celsius?: number | null;
  note?: string;
}

/** Notes a shake, a temperature or a word, of one jar or several. @throws Refused when one isn't steeping any more */
export const tend = defineAct({
  kind: "tend",
  run: async (tx, { jarIds, kind, celsius = null, note = "" }: TendIn, { actId, day }) => {
    const ids = [...new Set(jarIds)].sort((a, b) => a - b);
    if (ids.length === 0) throw Refused.one("", "Choose a jar.");
    const numbers: string[] = [];
    for (const jarId of ids) {
      numbers.push((await steeping(tx, jarId)).number);
      await tx.insert(jarEvent).values({ jarId, kind, day, celsius, note, actId });
    }
    const what = { shaken: "Shook", temperature: `${celsius} °C in`, note: "Noted of" }[kind];
    return {
      path: ids.length === 1 ? `/jars/${ids[0]}` : "/jars",
      summary: `${what} ${wordList(numbers)}${kind === "note" ? `: ${note.slice(0, 80)}` : ""}`,
      about: ids.flatMap((id) => aboutJar(id)),
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    await tx.delete(jarEvent).where(eq(jarEvent.actId, undoes));
  },
});

/** Turns a jar's heat on, with how long it is meant to run, or off. @throws Refused when it isn't steeping, or not on heat */
export const heat = defineAct({
  kind: "heat",
  run: async (tx, { jarId, minutes }: { jarId: number; minutes: number | null }, { actId, day }) => {
    const j = await steeping(tx, jarId);
    if (minutes === null && j.heatOn === null) throw Refused.one("", `Jar ${j.number} isn't on heat.`);
    await tx
      .update(jar)
      .set(minutes === null ? { heatOn: null } : { heatOn: sql`now()`, heatMinutes: minutes })
      .where(eq(jar.id, jarId));
    const ran =
      minutes === null ? counted(Math.round((Date.now() - j.heatOn!.getTime()) / 60_000), "minute") : `for ${counted(minutes, "minute")}`;
    await tx.insert(jarEvent).values({ jarId, kind: minutes === null ? "heatOff" : "heatOn", day, note: ran, actId });
    return {
      path: `/jars/${jarId}`,
      summary: minutes === null ? `Heat off ${j.number} after ${ran}` : `Heat on ${j.number} ${ran}`,
      about: aboutJar(jarId),
      leaves: { jarId, heatOn: j.heatOn?.toISOString() ?? null, heatMinutes: j.heatMinutes },
    };
  },
  leaves: object({ jarId: undoId(), heatOn: string().nullable().defined(), heatMinutes: undoIdOrNull() }),
  back: async (tx, { jarId, heatOn, heatMinutes }, { undoes }) => {
    await requireNoLaterActs(
      tx,
      { kind: "jar", id: jarId },
      undoes,
      ["heat", ...ENDS],
      "Its heat was turned on or off, or it was strained, since.",
    );
    await tx
      .update(jar)
      .set({ heatOn: heatOn === null ? null : new Date(heatOn), heatMinutes })
      .where(eq(jar.id, jarId));
    await tx.delete(jarEvent).where(eq(jarEvent.actId, undoes));
  },
});

/** Jars whose heat is on, for the timers every screen shows. */
export const heatedJars = (db: Db) =>
  cachedUntilWrite(db, "heated jars", "", () =>
    db
      .select({ id: jar.id, number: jar.number, name: jar.name, heatOn: jar.heatOn, heatMinutes: jar.heatMinutes })
      .from(jar)
      .where(and(isNotNull(jar.heatOn), isNotNull(jar.filledActId), isNull(jar.strainedActId), isNull(jar.spoiledActId))),
  );
