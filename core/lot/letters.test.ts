/** Letters suggested for a recipe's lots. */
import fc from "fast-check";
import { expect, it } from "vitest";
import { lotLetters } from "./letters.ts";

it.each<[string, string[], string]>([
  ["Lavender salve", [], "LS"],
  ["Balm of the north wind", [], "BNW"],
  ["Sea buckthorn hand balm", [], "SBH"],
  ["Salve", [], "SA"],
  ["Crème brûlée", ["CB"], "CBR"],
  ["Hand balm", ["HB", "HBA"], "HBL"],
  ["Balm 2", [], "BA"],
  ["42", [], ""],
  ["", [], ""],
])("%s beside %j is %j", (name, taken, letters) => expect(lotLetters(name, taken)).toBe(letters));

it("is what a recipe takes, and nobody else's", () => {
  fc.assert(
    fc.property(fc.string(), fc.array(fc.stringMatching(/^[A-Z]{1,4}$/)), (name, taken) => {
      const letters = lotLetters(name, taken);
      expect(letters).toMatch(/^[A-Z]{0,4}$/);
      expect(taken).not.toContain(letters);
    }),
  );
});
