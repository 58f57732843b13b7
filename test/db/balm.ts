/** A balm to write, for tests and contests: of oil and wax, filled into tins. */
import { UNASKED } from "#core/recipe/judge/judge";
import { mg } from "#core/measure/exact";
import type { RecipeIn, SizeIn } from "#db/recipe/save";

/** What it is made of and filled into. */
export type BalmOf = Record<"oil" | "wax" | "tin", number>;

/** A size filled with so many grams into a tin. */
export const sizeOf = ({ tin }: Pick<BalmOf, "tin">, grams: number, over: Partial<SizeIn> = {}): SizeIn => ({
  id: null,
  label: `${grams} g`,
  fillBy: "weight",
  fillText: `${grams} g`,
  fill: mg(grams * 1000),
  fillMl: null,
  containerId: tin,
  unitMinutesHundredths: 200,
  retired: false,
  packaging: [{ materialId: tin, pieces: 1 }],
  ...over,
});

export const balmOf = (of: BalmOf, over: Partial<RecipeIn> = {}): RecipeIn => ({
  ...UNASKED,
  name: "Test balm",
  code: "TB",
  type: "balm",
  makes: null,
  total: mg(100_000),
  lossBp: 0,
  keepsMonths: 12,
  batchMinutes: 30,
  overrunBp: 0,
  method: "",
  note: "",
  lines: [
    { materialId: of.oil, entered: "80 g", form: "liquid", weight: mg(80_000) },
    { materialId: of.wax, entered: "20 g", form: "pellets", weight: mg(20_000) },
  ],
  sizes: [sizeOf(of, 50)],
  ...over,
});
