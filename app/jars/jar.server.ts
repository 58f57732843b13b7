/** What can be done to a jar from its sheet, by the button pressed. */
import { done, refuse } from "#core/outcome";
import { parseNumber } from "#core/measure/parse";
import { heat, tend, topUp } from "#db/jars/fill";
import { spoilJar, strainJar } from "#db/jars/strain";
import { array, boolean, object } from "yup";
import { db } from "../server/workshop.server.ts";
import { readWeight, readWeighed } from "#core/measure/read";
import { idField, optional, reads, wholeNumber, requiredText } from "../forms/fields.ts";
import { runAct, pressedSheet } from "../forms/sheet.server.ts";

/** Oil in a jar, from a cold cellar to where herb scorches. */
const celsius = () =>
  reads<number>((text) => {
    const fahrenheit = /f\s*$/i.test(text.trim());
    const n = parseNumber(text.replace(/[°\s]*[cf]?\s*$/i, ""));
    if (!n.ok) return n.problem.code === "empty" ? refuse("empty", "Enter the temperature.") : n;
    const read = n.value.valueOf();
    const c = fahrenheit ? ((read - 32) * 5) / 9 : read;
    return c >= 0 && c <= 150
      ? done(Math.round(c * 10) / 10)
      : refuse("range", "Enter a temperature between 0 and 150 °C, or write °F after it.");
  });

const SCHEMAS = {
  temperature: object({ celsius: celsius() }),
  note: object({ note: requiredText("what you noticed", 500) }),
  topUp: object({ lot: idField(), qty: reads(readWeight) }),
  heatOn: object({ minutes: wholeNumber(1, 10_080, "minutes") }),
  strain: object({
    back: reads(readWeight),
    secondBack: optional(readWeight),
    sediment: reads((t) => readWeighed(t.trim() === "" ? "0" : t)),
    herbOut: optional(readWeight),
    pressed: boolean().default(false),
    bottles: array()
      .of(object({ amount: reads(readWeight) }))
      .min(1, "Enter at least one bottle.")
      .required(),
  }),
  spoil: object({ why: requiredText("what happened", 300) }),
} as const;

/** Reads which button was pressed and does it. */
export async function jarAct(request: Request, jarId: number) {
  const pressed = await pressedSheet(request, ["shaken", "temperature", "note", "heatOn", "heatOff", "topUp", "strain", "spoil"]);
  if (!pressed.ok) return pressed.reply;
  const { doing } = pressed;
  switch (pressed.intent) {
    case "shaken":
      return runAct(() => tend(db(), { jarIds: [jarId], kind: "shaken" }, doing));
    case "temperature": {
      const s = await pressed.read(SCHEMAS.temperature);
      if (!s.ok) return s.reply;
      return runAct(() => tend(db(), { jarIds: [jarId], kind: "temperature", celsius: s.value.celsius }, doing));
    }
    case "note": {
      const s = await pressed.read(SCHEMAS.note);
      if (!s.ok) return s.reply;
      return runAct(() => tend(db(), { jarIds: [jarId], kind: "note", note: s.value.note }, doing));
    }
    case "heatOn": {
      const s = await pressed.read(SCHEMAS.heatOn);
      if (!s.ok) return s.reply;
      return runAct(() => heat(db(), { jarId, minutes: s.value.minutes }, doing));
    }
    case "heatOff":
      return runAct(() => heat(db(), { jarId, minutes: null }, doing));
    case "topUp": {
      const s = await pressed.read(SCHEMAS.topUp);
      if (!s.ok) return s.reply;
      return runAct(() => topUp(db(), { jarId, lotId: s.value.lot, qty: s.value.qty }, doing));
    }
    case "strain": {
      const s = await pressed.read(SCHEMAS.strain);
      if (!s.ok) return s.reply;
      const { bottles, ...rest } = s.value;
      return runAct(() => strainJar(db(), { jarId, ...rest, bottles: bottles.map((b) => b.amount) }, doing));
    }
    case "spoil": {
      const s = await pressed.read(SCHEMAS.spoil);
      if (!s.ok) return s.reply;
      return runAct(() => spoilJar(db(), { jarId, why: s.value.why }, doing));
    }
  }
}
