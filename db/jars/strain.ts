/** Straining a jar into bottles, blending oils, and writing a spoiled jar off. */
import { infusedBestBefore, strain } from "#core/infusion/strain";
import { BLENDED_KINDS } from "#core/material/kinds";
import { mg, minus, sum, type Mg } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams } from "#core/measure/write";
import { Refused } from "#core/refused";
import { counted } from "#core/words";
import { eq, inArray } from "drizzle-orm";
import { object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoText } from "../act/left.ts";
import type { Tx } from "../client.ts";
import { holdLots } from "../ledger/holds.ts";
import { draw, lockLots, requireUsable } from "../ledger/lots.ts";
import { takenNumbers } from "../ledger/numbers.ts";
import { jar, lot, material, movement } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";
import { keepBestBefore } from "../shelf/bestBy.ts";
import { factsOfParts, materialMade } from "../shelf/madeOf.ts";
import { makeLots } from "../shelf/makeLots.ts";
import { steeping } from "./fill.ts";
import { partsOf, valueOfJar, type JarPartRow } from "./read.ts";

export interface StrainJarIn {
  jarId: number;
  back: Mg;
  secondBack: Mg | null;
  sediment: Mg;
  herbOut: Mg | null;
  pressed: boolean;
  bottles: readonly Mg[];
}

/** The infused oil of a name, made of its parts where the shelf hasn't got it yet. @throws Refused when the name is another kind's */
async function oilNamed(tx: Tx, name: string, parts: readonly JarPartRow[]): Promise<number> {
  const carriers = parts.filter((p) => p.role === "carrier");
  const oil = sum(carriers.map((p) => p.qty));
  const density =
    carriers.reduce((a, p) => a + p.qty * (p.material.densities.liquid ?? p.material.densities.melted ?? 920), 0) / Math.max(1, oil);
  const [main] = [...carriers].sort((a, b) => b.qty - a.qty);
  const { id } = await materialMade(
    tx,
    {
      name,
      kind: "infusedOil",
      ...factsOfParts([...carriers, ...parts.filter((p) => p.role === "herb")].map((p) => p.material)),
      densities: { liquid: Math.round(density) },
      keepsSealed: 12,
      keepsOpened: 6,
      kept: "cool",
      feel: main?.material.feel ?? "",
    },
    BLENDED_KINDS,
    "name",
    "Call the oil something else.",
  );
  return id;
}

/** Bottle letters after the jar's own number: A to Z, then AA, AB … */
const letters = (n: number): string => (n < 26 ? "" : letters(Math.floor(n / 26) - 1)) + String.fromCharCode(65 + (n % 26));

/** Strains a jar as one act: each bottle becomes a lot, and all the jar cost falls on them. @throws Refused by field */
export const strainJar = defineAct({
  kind: "strain",
  run: async (tx, input: StrainJarIn, { actId, day }) => {
    const j = await steeping(tx, input.jarId);
    const parts = await partsOf(tx, j.id);
    const of = (role: "herb" | "carrier") => parts.filter((p) => p.role === role);
    const value = await valueOfJar(tx, j.id);
    const done = strain({
      ...input,
      value,
      oilIn: sum(of("carrier").map((p) => p.qty)),
      herbIn: sum(of("herb").map((p) => p.qty)),
      expected: j.expected,
    });
    if (!done.ok) throw Refused.one(done.problem.code, done.problem.say);
    if (day < j.day) throw Refused.one("", "It can't be strained before it was filled.");
    const materialId = await oilNamed(tx, j.name, parts);
    const best = infusedBestBefore(
      day,
      of("carrier").map((p) => p.lot.bestBefore),
      of("herb").map((p) => p.lot.dryness),
    );
    const taken = await takenNumbers(tx, j.number);
    let letter = 0;
    const numbers = input.bottles.map(() => {
      while (taken.has(`${j.number}${letters(letter)}`)) letter++;
      const number = `${j.number}${letters(letter)}`;
      taken.add(number);
      return number;
    });
    // What is in it was put on hold while it steeped: so is what comes out of it.
    const held = parts.find((p) => p.lot.holdReason !== null)?.lot;
    const lots = await tx
      .insert(lot)
      .values(numbers.map((number) => ({ number, materialId, name: j.name, arrived: day, printed: best })))
      .returning({ id: lot.id });
    if (held)
      await holdLots(
        tx,
        lots.map((l) => l.id),
        { by: "made", source: j.id, reason: `${held.number} is in it, on hold: ${held.holdReason}` },
      );
    await keepBestBefore(
      tx,
      lots.map((l) => l.id),
    );
    await tx.insert(movement).values(
      input.bottles.map((qty, i) => ({
        actId,
        lotId: lots[i]!.id,
        qty,
        value: done.value.values[i]!,
        reason: "strained" as const,
        jarId: j.id,
      })),
    );
    const { back, secondBack, sediment, herbOut, pressed } = input;
    await tx.update(jar).set({ strainedActId: actId, back, secondBack, sediment, herbOut, pressed, heatOn: null }).where(eq(jar.id, j.id));
    return {
      path: `/jars/${j.id}`,
      summary: `Strained ${j.number}: ${grams(done.value.bottled)} in ${counted(input.bottles.length, "bottle")} (${numbers.join(", ")})`,
      about: [
        { kind: "jar", id: j.id, changes: true },
        { kind: "material", id: materialId },
      ],
      leaves: null,
    };
  },
  leaves: null,
  back: async (tx, _left, { undoes }) => {
    await tx.update(jar).set({ strainedActId: null }).where(eq(jar.strainedActId, undoes));
  },
});

/** Writes a spoiled jar off: what it cost is gone, and said. */
export const spoilJar = defineAct({
  kind: "spoil",
  run: async (tx, { jarId, why }: { jarId: number; why: string }, { actId }) => {
    const j = await steeping(tx, jarId);
    const value = await valueOfJar(tx, jarId);
    const { currency } = await readSettings(tx);
    await tx
      .update(jar)
      .set({ spoiledActId: actId, heatOn: null, note: [j.note, `Spoiled: ${why}`].filter(Boolean).join("\n") })
      .where(eq(jar.id, jarId));
    return {
      path: `/jars/${jarId}`,
      summary: `Wrote off jar ${j.number}, ${money(value, currency)} of herb and oil`,
      about: [{ kind: "jar", id: jarId, changes: true }],
      leaves: { note: j.note },
    };
  },
  leaves: object({ note: undoText() }),
  back: async (tx, { note }, { undoes }) => {
    await tx.update(jar).set({ spoiledActId: null, note }).where(eq(jar.spoiledActId, undoes));
  },
});

export interface BlendIn {
  name: string;
  takes: readonly { lotId: number; qty: Mg }[];
  note: string;
}

/** Blends oils of several lots into one new lot, at what they cost together. @throws Refused by field */
export const blend = defineAct({
  kind: "blend",
  run: async (tx, input: BlendIn, { actId, day }) => {
    const ids = input.takes.map((t) => t.lotId);
    if (new Set(ids).size < 2) throw Refused.one("takes.0.lot", "A blend needs two lots at least.");
    if (new Set(ids).size < ids.length) throw Refused.one("takes.0.lot", "The same lot is there twice.");
    const rows = await tx
      .select({ lot, material })
      .from(lot)
      .innerJoin(material, eq(material.id, lot.materialId))
      .where(inArray(lot.id, ids));
    const byId = new Map(rows.map((r) => [r.lot.id, r]));
    const locked = await lockLots(tx, ids);
    const parts = input.takes.map((t, i): JarPartRow => {
      requireUsable(locked, t.lotId, "blend", day, `takes.${i}.lot`);
      const r = byId.get(t.lotId)!;
      return { id: i, role: "carrier", cut: null, name: r.material.name, qty: t.qty, material: r.material, lot: { ...r.lot, hold: false } };
    });
    const materialId = await oilNamed(tx, input.name, parts);
    const [m] = await tx.select().from(material).where(eq(material.id, materialId));
    const best = parts.reduce<string | null>(
      (a, p) => (p.lot.bestBefore !== null && (a === null || p.lot.bestBefore < a) ? p.lot.bestBefore : a),
      null,
    );
    const [made] = await makeLots(tx, day, [{ material: m!, supplierLot: "", bestBefore: best }]);
    const draws = input.takes.map((t, i) =>
      draw(locked, t.lotId, t.qty, `takes.${i}.qty`, grams, { actId, reason: "blended", note: input.note }),
    );
    await tx.insert(movement).values([
      ...draws,
      {
        actId,
        lotId: made!.id,
        qty: mg(sum(input.takes.map((t) => t.qty))),
        value: minus(sum(draws.map((d) => d.value))),
        reason: "blended" as const,
        note: input.note,
      },
    ]);
    return {
      path: `/shelf/${materialId}`,
      summary: `Blended ${counted(ids.length, "lot")} into ${made!.number}, ${input.name}`,
      about: [{ kind: "material", id: materialId }, ...parts.map((p) => ({ kind: "material" as const, id: p.material.id }))],
      leaves: null,
    };
  },
  leaves: null,
  back: async () => {},
});
