/** What can be done from a material's sheet, by the button pressed. */
import { DRYNESS, type Dryness } from "#core/material/dryness";
import { factsIn } from "#core/material/facts";
import { DRIPS_LEAST, DRIPS_MOST } from "#core/measure/drops";
import { between } from "#core/measure/read";
import { readStock } from "#core/stock/packs";
import { MOVE_OUT_REASONS } from "#core/ledger/reasons";
import { correctCount } from "#db/shelf/counting/count";
import { moveOut, openLot, sayDrips, sayDryness } from "#db/shelf/lots";
import { sayCost } from "#db/shelf/counting/opening";
import { readMaterial } from "#db/shelf/materials";
import { object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { idField, noteText, oneOf, reads, wholeNumber, requiredText } from "../../forms/fields.ts";
import { costSchema } from "../../lots/sayCost.tsx";
import { runAct, pressedSheet, refuseSheet } from "../../forms/sheet.server.ts";

const countSchema = object({
  lotId: idField(),
  expected: wholeNumber(0, 1e12, "units"),
  counted: requiredText("what you counted", 40),
  reason: requiredText("why it differs", 200),
});
const outSchema = object({ lotId: idField(), amount: requiredText("how much", 40), why: oneOf(MOVE_OUT_REASONS), note: noteText(200) });
const drynessSchema = object({ lotId: idField(), dryness: oneOf(Object.keys(DRYNESS) as Dryness[]) });
/** How a bottle may drip, to the millilitre. */
const dripsSchema = object({ lotId: idField(), drips: reads(between(DRIPS_LEAST, DRIPS_MOST, "drops per mL", 1)) });
const openSchema = object({ lotId: idField() });

export async function materialAct(request: Request, id: number) {
  const pressed = await pressedSheet(request, ["takeOut", "open", "dryness", "drips", "cost", "count"]);
  if (!pressed.ok) return pressed.reply;
  const found = await readMaterial(db(), id);
  if (!found) throw new Response("Not found", { status: 404 });
  const facts = factsIn(found.material);
  const own = (lotId: number): boolean => found.lots.some((l) => l.id === lotId);
  const notHere = (field: string) => refuseSheet([{ field, say: "That lot isn't of this material." }]);
  const { doing } = pressed;

  switch (pressed.intent) {
    case "takeOut": {
      const s = await pressed.read(outSchema);
      if (!s.ok) return s.reply;
      if (!own(s.value.lotId)) return notHere("amount");
      const amount = readStock(s.value.amount, facts);
      if (!amount.ok) return refuseSheet([{ field: "amount", say: amount.problem.say }]);
      if (amount.value === 0) return refuseSheet([{ field: "amount", say: "Enter more than zero." }]);
      return runAct(() => moveOut(db(), { lotId: s.value.lotId, amount: amount.value, reason: s.value.why, note: s.value.note }, doing));
    }
    case "open": {
      const s = await pressed.read(openSchema);
      if (!s.ok) return s.reply;
      return own(s.value.lotId) ? runAct(() => openLot(db(), { lotId: s.value.lotId }, doing)) : notHere("");
    }
    case "dryness": {
      const s = await pressed.read(drynessSchema);
      if (!s.ok) return s.reply;
      return own(s.value.lotId) ? runAct(() => sayDryness(db(), s.value, doing)) : notHere("dryness");
    }
    case "drips": {
      const s = await pressed.read(dripsSchema);
      if (!s.ok) return s.reply;
      return own(s.value.lotId) ? runAct(() => sayDrips(db(), { lotId: s.value.lotId, perMl: s.value.drips }, doing)) : notHere("drips");
    }
    case "cost": {
      const s = await pressed.read(costSchema);
      if (!s.ok) return s.reply;
      if (!own(s.value.lotId)) return notHere("cost");
      return runAct(() => sayCost(db(), { lotId: s.value.lotId, cost: s.value.cost, costKnown: s.value.known }, doing));
    }
    case "count": {
      const s = await pressed.read(countSchema);
      if (!s.ok) return s.reply;
      const { lotId, expected, reason, counted } = s.value;
      if (!own(lotId)) return notHere("counted");
      const amount = readStock(counted, facts);
      if (!amount.ok) return refuseSheet([{ field: "counted", say: amount.problem.say }]);
      return runAct(() => correctCount(db(), { lotId, expected, reason, counted: amount.value }, doing));
    }
  }
}
