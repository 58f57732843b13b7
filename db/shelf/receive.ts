/** Receiving a purchase: each line becomes a lot with its own landed cost. */
import { nextLotNumber, numberHead } from "#core/lot/number";
import type { Base, Micros } from "#core/measure/exact";
import { KINDS } from "#core/material/kinds";
import { landedCosts } from "#core/stock/packs";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { inArray } from "drizzle-orm";
import { perform, takenNumbers, type Doing, type Done } from "../act.ts";
import type { Db } from "../client.ts";
import { lot, material, movement, purchase, purchaseLine } from "../schema.ts";
import { readSettings } from "../settings.ts";

export interface ReceiveIn {
  supplier: string;
  day: Day;
  postage: Micros;
  lines: readonly {
    materialId: number;
    supplierLot: string;
    packs: number;
    packSize: string;
    /** All packs together, in the material's base unit. */
    qty: Base;
    /** For all packs, without postage. */
    price: Micros;
    bestBefore: Day | null;
  }[];
}

/** Receives a purchase as one act. @throws Refused for an unknown material */
export function receive(db: Db, input: ReceiveIn, doing: Omit<Doing, "day">): Promise<Done> {
  return perform(db, "receive", { ...doing, day: input.day }, async (tx, actId) => {
    const { receiptScheme } = await readSettings(tx);
    const known = await tx
      .select({ id: material.id, name: material.name, kind: material.kind })
      .from(material)
      .where(
        inArray(
          material.id,
          input.lines.map((l) => l.materialId),
        ),
      );
    const byId = new Map(known.map((m) => [m.id, m]));
    const missing = input.lines.flatMap((l, i) =>
      byId.has(l.materialId) ? [] : [{ field: `lines.${i}.material`, say: "That material isn't on the shelf any more." }],
    );
    if (missing.length > 0) throw new Refused(missing);

    const landed = landedCosts(
      input.lines.map((l) => l.price),
      input.postage,
    );
    const [bought] = await tx
      .insert(purchase)
      .values({ actId, supplier: input.supplier, day: input.day, postage: input.postage })
      .returning({ id: purchase.id });
    const taken = await takenNumbers(tx, numberHead(receiptScheme, { day: input.day }));
    const numbers = input.lines.map((l) => {
      const code = KINDS[byId.get(l.materialId)!.kind].label.slice(0, 2).toUpperCase();
      const number = nextLotNumber(receiptScheme, { code, day: input.day }, taken);
      taken.add(number);
      return number;
    });
    const lots = await tx
      .insert(lot)
      .values(
        input.lines.map((l, i) => ({
          number: numbers[i]!,
          materialId: l.materialId,
          supplierLot: l.supplierLot,
          arrived: input.day,
          bestBefore: l.bestBefore,
        })),
      )
      .returning({ id: lot.id });
    await tx.insert(purchaseLine).values(
      input.lines.map((l, i) => ({
        purchaseId: bought!.id,
        lotId: lots[i]!.id,
        packs: l.packs,
        packSize: l.packSize,
        qty: l.qty,
        price: l.price,
        landed: landed[i]!,
      })),
    );
    await tx
      .insert(movement)
      .values(input.lines.map((l, i) => ({ actId, lotId: lots[i]!.id, qty: l.qty, value: landed[i]!, reason: "received" as const })));
    const n = input.lines.length;
    return {
      path: "/shelf",
      summary: `Received ${n} ${n === 1 ? "lot" : "lots"} from ${input.supplier} (${numbers[0]}${n > 1 ? ` … ${numbers[n - 1]}` : ""})`,
    };
  });
}
