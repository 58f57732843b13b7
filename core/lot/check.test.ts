/** Check characters by ISO/IEC 7064, MOD 37,36, as the cdigit library works them out, and what a slip may have meant. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { checkOf, checks, slipsOf } from "./check.ts";
import { lotNumber } from "./number.ts";

const ALPHABET = Array.from("0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ");
/** The system as the standard gives it (from memory): P₁ = 36; Pⱼ₊₁ = 2·((Pⱼ + aⱼ) mod 36, 36 for 0) mod 37; the check makes it 1 mod 36. */
function byHand(text: string): string {
  let p = 36;
  for (const c of text) p = (((p + ALPHABET.indexOf(c)) % 36 || 36) * 2) % 37;
  return ALPHABET[(37 - p) % 36]!;
}
const NUMBERS = ["HB", "SB", "R", "LIP"].flatMap((code) =>
  [1, 7, 10, 42].map((serial) => lotNumber("{P}{YY}{MM}{DD}-{NN}{C}", { code, day: `2026-0${(serial % 9) + 1}-1${serial % 10}`, serial })),
);

describe("the check character", () => {
  it("is that of a release identifier's worked example (GRid handbook, from memory), and of the standard's own rule", () => {
    expect(checkOf("A1-2425G-ABC1234002")).toBe("M");
    expect(checks("A1-2425G-ABC1234002-M")).toBe(true);
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...ALPHABET), minLength: 1, maxLength: 14 }), (t) => {
        expect(checkOf(t)).toBe(byHand(t));
        expect(checks(t + checkOf(t))).toBe(true);
      }),
    );
  });
  it("finds every single slip there is", () => {
    for (const number of NUMBERS)
      for (const [i, was] of Array.from(number).entries())
        if (was !== "-")
          for (const c of ALPHABET)
            if (c !== was) expect([number, i, c, checks(number.slice(0, i) + c + number.slice(i + 1))]).toEqual([number, i, c, false]);
  });
  it("finds all neighbours that change places but for one pair after each beginning: so the standard's system is", () => {
    // A beginning of one character leaves the system in one of its 36 states, each of them once.
    for (const before of ALPHABET) {
      const missed = new Set<string>();
      for (const a of ALPHABET) for (const b of ALPHABET) if (a < b && checks(before + b + a + checkOf(before + a + b))) missed.add(a + b);
      expect([before, missed.size]).toEqual([before, 1]);
    }
  });
  it("is read in whatever case it is typed, and not of nothing", () => {
    expect(checks(NUMBERS[0]!.toLowerCase())).toBe(true);
    expect([checks(""), checks("0"), checks("-")]).toEqual([false, false, false]);
  });
});

describe("what was meant", () => {
  it("is among the slips of any number with one in it, and never the number itself", () => {
    const slip = fc.record({ of: fc.constantFrom(...NUMBERS), at: fc.nat(9), how: fc.nat(3), c: fc.constantFrom(...ALPHABET) });
    fc.assert(
      fc.property(slip, ({ of, at, how, c }) => {
        const [before, after] = [of.slice(0, at), of.slice(at)];
        const typed = [
          before + c + after.slice(1),
          before + after.slice(1),
          before + c + after,
          before + after[1]! + after[0]! + after.slice(2),
        ][how]!;
        const meant = slipsOf(` ${typed.toLowerCase()} `);
        expect(meant.includes(of)).toBe(typed !== of);
        expect(new Set(meant).size).toBe(meant.length);
      }),
    );
  });
  it("is nothing for what is no number", () => {
    expect([slipsOf(""), slipsOf("ab"), slipsOf("lavender oil"), slipsOf("9".repeat(41))]).toEqual([[], [], [], []]);
  });
});
