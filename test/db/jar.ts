/** A jar to fill, for tests and contests, and the day they are on. */
import { METHODS, readyDays } from "#core/infusion/methods";
import { mg } from "#core/measure/exact";
import type { FillIn } from "#db/jars/fill";

export const DAY = "2026-05-04";

/** A jar to fill: on the shelf for the usual weeks unless said otherwise. */
export const jarOf = (parts: FillIn["parts"], over: Partial<FillIn> = {}): FillIn => ({
  name: "Herb in oil",
  method: "shelf",
  methodName: "",
  vessel: "",
  vesselMl: null,
  fillMl: null,
  looseMl: null,
  day: DAY,
  ready: readyDays(DAY, METHODS.shelf.times),
  wished: null,
  heatMinutes: null,
  why: "",
  note: "",
  expected: mg(1000),
  parts,
  ...over,
});
