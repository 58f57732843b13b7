/** Reading a posted receipt: the same for a new one and for a correction. */
import { finderBy, type Meant } from "#core/meant";
import { isKeyOf } from "#core/objects";
import { factsIn } from "#core/material/facts";
import { between, readCount, parseMoney } from "#core/measure/read";
import { done, refuse } from "#core/outcome";
import type { FieldProblem } from "#core/refused";
import { packAmount } from "#core/stock/packs";
import { RATE_1, SPREADS, type SpreadBy } from "#core/stock/receipt";
import type { CorrectIn } from "#db/shelf/receipts/correct";
import { listMaterials } from "#db/shelf/materials";
import { today } from "#db/clock";
import { array, object, type InferType } from "yup";
import { db } from "../../server/workshop.server.ts";
import { dayField, moneyOr0, noteText, optional, optionalDay, reads, wholeNumber, requiredText } from "../../forms/fields.ts";
import { refuseSheet } from "../../forms/sheet.server.ts";
import { CURRENCIES } from "../../ui/fields/currencies.ts";

export const receiptSchema = object({
  supplier: requiredText("who it came from"),
  day: dayField(),
  postage: moneyOr0(),
  tax: moneyOr0(),
  discount: moneyOr0(),
  spreadBy: reads<SpreadBy>((t) =>
    t === "" ? done("value") : isKeyOf(SPREADS, t) ? done(t) : refuse("choice", "Choose one of the list."),
  ),
  currency: noteText(3),
  rate: optional(between(0.0001, 2000, "of your currency", RATE_1)),
  note: noteText(500),
  lines: array()
    .of(
      object({
        id: noteText(12),
        material: requiredText("a material"),
        supplierLot: noteText(60),
        packs: wholeNumber(1, 10_000, "packs", 1),
        arrived: optional((t) => {
          const n = readCount(t);
          return n.ok ? n : refuse("whole", "Enter how many packs have come; 0 when none has.");
        }),
        packSize: requiredText("what is in a pack", 40),
        price: reads(parseMoney),
        bestBefore: optionalDay(),
      }),
    )
    .min(1, "Enter at least one line.")
    .required(),
});

type Read = { ok: true; value: CorrectIn } | { ok: false; reply: ReturnType<typeof refuseSheet> };

/** Turns a posted receipt into what is stored, or says beside each field what is wrong. @param meant what its materials meant when they were typed */
export async function readReceiptSheet(v: InferType<typeof receiptSchema>, own: string, meant: Meant): Promise<Read> {
  const find = finderBy(await listMaterials(db()), meant);
  const problems: FieldProblem[] = [];
  if (v.day > today()) problems.push({ field: "day", say: "That day hasn't come yet." });
  const foreign = v.currency !== "" && v.currency !== own;
  if (foreign && !(CURRENCIES as readonly string[]).includes(v.currency))
    problems.push({ field: "currency", say: "Choose one of the list." });
  if (foreign && v.rate === null) problems.push({ field: "rate", say: `Say what one ${v.currency} is in ${own}.` });
  const lines = v.lines.flatMap((l, i) => {
    const at = (field: string): string => `lines.${i}.${field}`;
    const m = find(l.material);
    if (!m) {
      problems.push({ field: at("material"), say: `“${l.material}” isn't on the shelf. Choose one from the list, or add it first.` });
      return [];
    }
    const qty = packAmount(l.packs, l.packSize, factsIn(m));
    if (!qty.ok) problems.push({ field: at("packSize"), say: qty.problem.say });
    if (l.bestBefore !== null && l.bestBefore < v.day)
      problems.push({ field: at("bestBefore"), say: "That is before the day it arrived." });
    if (l.arrived !== null && l.arrived > l.packs) problems.push({ field: at("arrived"), say: "More than were ordered can't have come." });
    if (!qty.ok) return [];
    const { supplierLot, packs, packSize, price, bestBefore } = l;
    return [
      {
        id: Number(l.id) || null,
        materialId: m.id,
        supplierLot,
        packs,
        arrived: l.arrived ?? packs,
        packSize,
        qty: qty.value,
        price,
        bestBefore,
      },
    ];
  });
  if (problems.length > 0) return { ok: false, reply: refuseSheet(problems) };
  const { supplier, day, postage, tax, discount, spreadBy } = v;
  return {
    ok: true,
    value: {
      supplier,
      day,
      postage,
      tax,
      discount,
      spreadBy,
      currency: foreign ? v.currency : "",
      rate: foreign ? v.rate! : RATE_1,
      note: v.note,
      lines,
    },
  };
}
