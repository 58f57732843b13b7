/** Making lots of materials inside an act: empty until something moves into them, and numbered by the receipt scheme. */
import { numberer, numberHead } from "#core/lot/number";
import { KINDS } from "#core/material/kinds";
import { Refused } from "#core/refused";
import type { CostKnown } from "#core/stock/costKnown";
import type { Day } from "#core/when";
import { inArray, sql } from "drizzle-orm";
import { randomUUID } from "node:crypto";
import type { Tx } from "../client.ts";
import { takenNumbers } from "../ledger/numbers.ts";
import { inChunks } from "../pieces.ts";
import { lot, material } from "../schema.ts";
import { readSettings } from "../settings/settings.ts";
import { keepBestBefore } from "./bestBy.ts";
import type { MaterialRow } from "./materials.ts";

/** What goes into a lot, by line of a receipt. */
export interface NewLot {
  material: MaterialRow;
  supplierLot: string;
  bestBefore: Day | null;
  /** When it was bought, where that was another day; and how its cost is known. */
  bought?: Day | null;
  costKnown?: CostKnown;
}

/** Materials by id. @throws Refused beside the line of each that has gone */
export async function materialsOfLines(tx: Tx, lines: readonly { materialId: number }[]): Promise<Map<number, MaterialRow>> {
  const ids = [...new Set(lines.map((l) => l.materialId))];
  const known = new Map((ids.length ? await tx.select().from(material).where(inArray(material.id, ids)) : []).map((m) => [m.id, m]));
  const missing = lines.flatMap((l, i) =>
    known.has(l.materialId) ? [] : [{ field: `lines.${i}.material`, say: "That material isn't on the shelf any more." }],
  );
  if (missing.length > 0) throw new Refused(missing);
  return known;
}

export interface MadeLot {
  id: number;
  number: string;
}

/** A lot on its way to its number. */
export interface BareLot {
  id: number;
  code: string;
}

/** Stands for a number until the act has made everything else; no scheme allows its first character. */
const bare = (): string => `~${randomUUID()}`;

/**
 * Makes empty lots that `numberLots` has yet to number, so that others needn't wait for numbers while a long list goes in.
 * @param step called with how many are made, between statements
 */
export async function makeBareLots(
  tx: Tx,
  day: Day,
  rows: readonly NewLot[],
  step: (made: number) => Promise<void> = () => Promise.resolve(),
): Promise<BareLot[]> {
  const made: BareLot[] = [];
  for (const piece of inChunks(rows)) {
    const lots = await tx
      .insert(lot)
      .values(
        piece.map((r) => ({
          number: bare(),
          materialId: r.material.id,
          name: r.material.name,
          supplierLot: r.supplierLot,
          arrived: r.bought ?? day,
          printed: r.bestBefore,
          costKnown: r.costKnown,
        })),
      )
      .returning({ id: lot.id });
    made.push(...lots.map(({ id }, i) => ({ id, code: KINDS[piece[i]!.material.kind].label.slice(0, 2).toUpperCase() })));
    await step(made.length);
  }
  await keepBestBefore(
    tx,
    made.map((l) => l.id),
  );
  return made;
}

/** Gives lots the next numbers of the receipt scheme, in their order. @returns them in the same order */
export async function numberLots(tx: Tx, day: Day, lots: readonly BareLot[]): Promise<MadeLot[]> {
  if (lots.length === 0) return [];
  const { receiptScheme } = await readSettings(tx);
  const next = numberer(receiptScheme, day, await takenNumbers(tx, numberHead(receiptScheme, { day })));
  const made = lots.map(({ id, code }) => ({ id, number: next(code) }));
  await tx.execute(sql`
    update ${lot} set number = given.number
    from unnest(${sql.param(made.map((l) => l.id))}::int[], ${sql.param(made.map((l) => l.number))}::text[]) as given(id, number)
    where ${lot.id} = given.id`);
  return made;
}

/** Makes empty lots with the next numbers of the receipt scheme. */
export const makeLots = async (tx: Tx, day: Day, rows: readonly NewLot[]): Promise<MadeLot[]> =>
  numberLots(tx, day, await makeBareLots(tx, day, rows));
