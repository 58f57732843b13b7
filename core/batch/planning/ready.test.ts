/** What is ready: only what this batch needs, and as much of it. */
import fc from "fast-check";
import { expect, it } from "vitest";
import { KIND_IDS } from "../../material/kinds.ts";
import { RECIPE_TYPES, type RecipeType } from "../../recipe/types.ts";
import { CAUTION_IDS } from "../../material/cautions.ts";
import { getReady, type ReadyIn } from "./ready.ts";

const scale = { unit: "g", step: 100 } as const;
const has = (over: Partial<ReadyIn>, what: RegExp): boolean =>
  getReady({ type: "salve", ingredients: [], packaging: [], scale, ...over }).some((i) => what.test(i.what));

it.each<[string, Partial<ReadyIn>, RegExp, boolean]>([
  ["tins are counted", { packaging: [{ name: "Tin", kind: "container", pieces: 12 }] }, /^12 × Tin$/, true],
  ["no tins, none", { packaging: [{ name: "Tin", kind: "container", pieces: 0 }] }, /Tin/, false],
  ["a box isn't wiped with alcohol", { packaging: [{ name: "Box", kind: "box", pieces: 3 }] }, /Box/, false],
  ["wax wants a cold spoon", { ingredients: [{ name: "Wax", kind: "wax", cautions: [] }] }, /spoon/, true],
  ["oil alone melts nowhere", { ingredients: [{ name: "Oil", kind: "oil", cautions: [] }] }, /Water bath|spoon/, false],
  [
    "cloths with flax oil heat by themselves",
    { ingredients: [{ name: "Flax", kind: "oil", cautions: ["selfHeats"] }] },
    /bucket of water/,
    true,
  ],
  ["scent wants gloves", { ingredients: [{ name: "Lavender", kind: "essentialOil", cautions: [] }] }, /Gloves/, true],
  ["a butter is whipped", { type: "bodyButter" }, /Mixer/, true],
  ["a bar isn't", { type: "lotionBar" }, /Mixer/, false],
  ["a bar goes in the fridge", { type: "lotionBar" }, /fridge/, true],
])("%s", (_, over, what, expected) => expect(has(over, what)).toBe(expected));

it("whatever goes in, every item says what and how, and none is there twice", () =>
  fc.assert(
    fc.property(
      fc.constantFrom(...(Object.keys(RECIPE_TYPES) as RecipeType[])),
      fc.array(fc.record({ name: fc.constantFrom("A", "B"), kind: fc.constantFrom(...KIND_IDS), cautions: fc.subarray([...CAUTION_IDS]) })),
      fc.array(fc.record({ name: fc.constantFrom("C", "D"), kind: fc.constantFrom(...KIND_IDS), pieces: fc.nat(40) })),
      (type, ingredients, packaging) => {
        const items = getReady({ type, ingredients, packaging, scale });
        expect(new Set(items.map((i) => i.what)).size).toBe(items.length);
        for (const i of items) expect(`${i.what} | ${i.how}`).toMatch(/^\S.* \| [A-Z].*\.$/);
      },
    ),
  ));
