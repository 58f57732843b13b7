/** What a check finds, in words. */
import { expect, it } from "vitest";
import { amiss } from "./check.ts";

const RIGHT = { face: "smooth", scent: "right", closes: "right", labelled: 4, firm: null } as const;

it.each([
  [RIGHT, []],
  [{ ...RIGHT, face: "grainy" }, ["grainy"]],
  [{ ...RIGHT, scent: "off", closes: "some" }, ["smells off", "some don’t close, or broke"]],
  [{ ...RIGHT, scent: "faint", labelled: 3 }, ["scent too faint", "1 of 4 without a label"]],
  [{ ...RIGHT, firm: "soft" }, ["a little soft"]],
  [{ ...RIGHT, firm: "right" }, []],
  [{ ...RIGHT, labelled: 0 }, ["no labels yet"]],
] as const)("says what speaks against it: %o", (found, expected) => expect(amiss(found, 4)).toEqual(expected));
