/**
 * Restates costs after a correction or a reversal: replays each affected lot and posts the differences.
 *
 * The movements of each lot that are in effect are replayed in their order (core/ledger/replay). Where a draw is now worth another figure, what
 * was made of it is too: a batch's sizes, a jar's bottles, a blend, down to market days and orders. Rows of the ledger never change; each
 * difference is a separate movement that names the one it restates.
 */
import { stockValues } from "#core/batch/finishing/result";
import { bottleValues } from "#core/infusion/strain";
import { micros, minus, type Micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { among, COST_MADE, FOUND, TURNED } from "#core/ledger/reasons";
import { replay } from "#core/ledger/replay";
import { and, eq, inArray, isNull, ne, sql, type SQL } from "drizzle-orm";
import { addedToSize, intoPot, sqlNumber } from "../columnsOf.ts";
import { inBook, isEffective } from "./effective.ts";
import type { Tx } from "../client.ts";
import { act, batch, batchSize, movement } from "../schema.ts";
import { anyOf, inChunks } from "../pieces.ts";
import { lockLots, type NewMovement } from "./lots.ts";

/** A movement that puts another one right, as a person said. */
export type Restatement = NewMovement & { restates: number; qty: number; value: Micros };

type Row = typeof movement.$inferSelect;
/** A movement in effect, with what it comes to after everything that corrected it. */
type Base = Row & { was: { qty: number; value: Micros } };

/** What was posted to put movements right, by the one it corrects. */
export const sumsOf = async (tx: Tx, ids: readonly number[]): Promise<{ of: number; qty: number; value: Micros }[]> =>
  ids.length === 0
    ? []
    : tx
        .select({
          of: sqlNumber(sql`${movement.restates}`),
          qty: sqlNumber(sql`sum(${movement.qty})`),
          value: sql`sum(${movement.value})`.mapWith(movement.value),
        })
        .from(movement)
        .where(anyOf(movement.restates, ids))
        .groupBy(movement.restates);

export interface Says {
  /** Beside which field to say that a lot hadn't enough, and how. */
  field: (lotId: number) => string;
  short: (number: string) => string;
  /** An act that is taken back: what used a lot before it isn't in the way. */
  after?: number;
}

/**
 * Posts facts and everything that follows from them, as one set of movements.
 * @throws Refused, naming what used it, when a lot would not have had enough for what was drawn from it
 */
export async function restate(tx: Tx, actId: number, facts: readonly Restatement[], says: Says): Promise<void> {
  if (facts.length === 0) return;
  const books = new Books(tx, facts);
  await books.open(facts.map((f) => f.lotId));
  for (let lotId = books.next(); lotId !== null; lotId = books.next()) await books.goThrough(lotId, says);
  await post(tx, [...facts, ...books.differences(actId)]);
}

/** Inserts movements so that no lot goes below zero on the way: first what adds, then what takes. */
async function post(tx: Tx, rows: readonly NewMovement[]): Promise<void> {
  const parts = rows.flatMap((r) =>
    Math.sign(r.qty) * Math.sign(r.value) < 0
      ? [
          { ...r, value: micros(0) },
          { ...r, qty: 0 },
        ]
      : [r],
  );
  const moves = parts.filter((r) => r.qty !== 0 || r.value !== 0);
  const adds = (r: NewMovement): boolean => r.qty > 0 || r.value > 0;
  for (const piece of [...inChunks(moves.filter(adds)), ...inChunks(moves.filter((r) => !adds(r)))])
    await tx.insert(movement).values(piece);
}

/** The part of the books that is being gone through, in memory until it is posted. */
class Books {
  readonly #tx: Tx;
  readonly #facts: readonly Restatement[];
  readonly #lots = new Map<number, Base[]>();
  /** In line, the one that comes first at the end. */
  #waiting: number[] = [];
  readonly #inLine = new Set<number>();
  #sorted = true;
  #numbers = new Map<number, string>();

  constructor(tx: Tx, facts: readonly Restatement[]) {
    this.#tx = tx;
    this.#facts = facts;
  }

  /** Locks lots, reads their movements in effect and puts them in line. */
  async open(lotIds: readonly number[]): Promise<void> {
    const fresh = [...new Set(lotIds)].filter((id) => !this.#lots.has(id));
    this.#waiting.push(...lotIds.filter((id) => !this.#inLine.has(id)));
    for (const id of lotIds) this.#inLine.add(id);
    this.#sorted = false;
    if (fresh.length === 0) return;
    for (const [id, l] of await lockLots(this.#tx, fresh)) this.#numbers.set(id, l.number);
    for (const id of fresh) this.#lots.set(id, []);
    for (const b of await this.#basesWhere(anyOf(movement.lotId, fresh))) this.#lots.get(b.lotId)!.push(b);
  }

  /** The lot in line whose stock came in first: whatever is made of it comes later. */
  next(): number | null {
    const first = (id: number): number => this.#lots.get(id)![0]?.id ?? 0;
    if (!this.#sorted) this.#waiting.sort((a, b) => first(b) - first(a));
    this.#sorted = true;
    const found = this.#waiting.pop() ?? null;
    if (found !== null) this.#inLine.delete(found);
    return found;
  }

  async goThrough(lotId: number, says: Says): Promise<void> {
    const bases = this.#lots.get(lotId)!;
    for (const b of bases) if (among(COST_MADE, b.reason) && b.qty > 0) b.value = await this.#madeOf(b);
    const out = replay(
      bases.map((b) =>
        b.countedTo !== null
          ? { how: "counted", qty: b.countedTo, value: b.value }
          : { how: b.qty < 0 ? "drawn" : among(FOUND, b.reason) ? "found" : "came", qty: Math.abs(b.qty), value: b.value },
      ),
    );
    if (out.shortAt !== null) throw await this.#short(lotId, says);
    for (const [i, b] of bases.entries()) {
      const drawn = b.countedTo === null && b.qty < 0;
      const value = drawn ? minus(out.values[i]!) : out.values[i]!;
      if (b.countedTo !== null) b.qty = out.qtys[i]!;
      if (value === b.value) continue;
      b.value = value;
      if (drawn) await this.#follow(b);
    }
  }

  /** What the movements that were gone through are worth, and of a count moved, more or less than the ledger says. */
  differences(actId: number): NewMovement[] {
    return [...this.#lots.values()].flat().flatMap((b) =>
      b.value === b.was.value && b.qty === b.was.qty
        ? []
        : [
            {
              actId,
              lotId: b.lotId,
              qty: b.qty - b.was.qty,
              value: micros(b.value - b.was.value),
              reason: "restated" as const,
              restates: b.id,
              batchId: b.batchId,
              marketDayId: b.marketDayId,
              giftOrderId: b.giftOrderId,
              jarId: b.jarId,
              intoLotId: b.intoLotId,
            },
          ],
    );
  }

  /** Movements in effect that correct nothing themselves, with what they come to. */
  async #basesWhere(which: SQL): Promise<Base[]> {
    const rows = await this.#tx
      .select()
      .from(movement)
      .where(and(which, isNull(movement.restates), ne(movement.reason, "undone"), isEffective(movement.actId)))
      .orderBy(movement.id);
    const known = new Set(rows.map((r) => r.id));
    const sums = new Map((await sumsOf(this.#tx, [...known])).map((s) => [s.of, { ...s }]));
    for (const f of this.#facts) {
      if (!known.has(f.restates)) continue;
      const s = sums.get(f.restates) ?? { of: f.restates, qty: 0, value: micros(0) };
      sums.set(f.restates, { ...s, qty: s.qty + f.qty, value: micros(s.value + f.value) });
    }
    return rows.map((r) => {
      const value = micros(r.value + (sums.get(r.id)?.value ?? 0));
      const qty = r.qty + (sums.get(r.id)?.qty ?? 0);
      return { ...r, qty, value, was: { qty, value } };
    });
  }

  /** The same, as they have been gone through where they have. */
  async #draws(which: SQL): Promise<Base[]> {
    return (await this.#basesWhere(which)).map((b) => this.#lots.get(b.lotId)?.find((k) => k.id === b.id) ?? b);
  }

  /** What something made is worth: all that went into it, or its share. */
  async #madeOf(made: Base): Promise<Micros> {
    const worth = (rows: readonly Base[]): Micros => micros(-rows.reduce((a, r) => a + r.value, 0) || 0);
    const fromAct = eq(movement.actId, made.actId);
    if (among(TURNED, made.reason)) return worth((await this.#draws(fromAct)).filter((r) => r.qty < 0));
    const out = (await this.#basesWhere(and(fromAct, eq(movement.reason, made.reason))!)).filter((r) => r.qty > 0);
    const place = out.findIndex((r) => r.id === made.id);
    if (made.reason === "strained") {
      const inJar = await this.#draws(and(eq(movement.jarId, made.jarId!), eq(movement.reason, "infused"))!);
      return bottleValues(
        worth(inJar),
        out.map((r) => r.qty),
      )[place]!;
    }
    const used = await this.#draws(and(fromAct, eq(movement.reason, "used"))!);
    const sizes = new Map(
      (
        await this.#tx
          .select({ lotId: batchSize.lotId, fill: batchSize.fill, ladled: batchSize.ladled, added: addedToSize, pot: intoPot })
          .from(batchSize)
          .innerJoin(batch, eq(batch.id, batchSize.batchId))
          .where(eq(batchSize.batchId, made.batchId!))
      ).map((s) => [s.lotId, s]),
    );
    return stockValues(
      worth(used.filter((r) => r.intoLotId === null)),
      sizes.get(made.lotId)!.pot,
      out.map((r) => ({ ...sizes.get(r.lotId)!, units: r.qty, own: worth(used.filter((u) => u.intoLotId === r.lotId)) })),
    )[place]!;
  }

  /** Puts the lots in line that something drawn went into. */
  async #follow(draw: Base): Promise<void> {
    const into =
      draw.reason === "used" && draw.batchId !== null
        ? and(eq(movement.actId, draw.actId), eq(movement.reason, "filled"))
        : draw.reason === "infused" && draw.jarId !== null
          ? and(eq(movement.jarId, draw.jarId), eq(movement.reason, "strained"))
          : among(TURNED, draw.reason)
            ? and(eq(movement.actId, draw.actId), eq(movement.reason, draw.reason))
            : undefined;
    if (!into) return;
    const made = (await this.#basesWhere(into)).filter((r) => r.qty > 0);
    await this.open(made.map((r) => r.lotId));
  }

  async #short(lotId: number, says: Says): Promise<Refused> {
    const since = says.after ?? 0;
    const users = [
      ...new Set(this.#lots.get(lotId)!.flatMap((b) => (b.actId > since && (b.qty < 0 || among(FOUND, b.reason)) ? [b.actId] : []))),
    ];
    const rows = users.length
      ? await this.#tx
          .select({ id: act.id, summary: act.summary })
          .from(act)
          .where(inArray(act.id, users.slice(-5)))
          .orderBy(act.id)
      : [];
    return Refused.one(says.field(lotId), says.short(this.#numbers.get(lotId)!), rows.map(inBook));
  }
}
