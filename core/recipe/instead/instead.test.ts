/** Substitutes, by the library's figures. Common practice, no source. */
import { describe, expect, it } from "vitest";
import { firmness, mixOf, SAID_AT, TRADE } from "../../firmness/model.ts";
import Fraction from "fraction.js";
import { micros } from "../../measure/exact.ts";
import { parseAmount, showAmount } from "../../measure/parse.ts";
import { weighRecipe } from "../lines.ts";
import { ALL, BALM, known, pot, was } from "#test/core/pot";
import { insteadOf, standIns } from "./instead.ts";
import { ordered } from "./order.ts";
import { lengthened, putIn, replaceAll, WITHOUT } from "./replace.ts";
import { likeKinds, onHandOf, type StandIn } from "./standIn.ts";

describe("standing in", () => {
  it("candelilla for beeswax: half to two thirds of it, and it sets the same", () => {
    const of = pot("balm", BALM);
    const stand = insteadOf(of, of.lines[0]!, was("candelilla"), known)!;
    expect(stand.weight / of.lines[0]!.weight).toBeGreaterThan(0.5);
    expect(stand.weight / of.lines[0]!.weight).toBeLessThan(0.667);
    expect(stand.firm).toBeCloseTo(firmness(mixOf(of.lines), SAID_AT, TRADE), 3);
    expect(stand.reasons).toEqual(expect.arrayContaining(["enough on hand", "stronger, so less of it", "no bee product", "vegan"]));
    expect(stand.dearer).toBeLessThan(0);
  });
  it("liquid for liquid gram for gram; a butter with its wax put right; a strong scent only up to its ceiling", () => {
    const of = pot("balm", BALM);
    expect(insteadOf(of, of.lines[2]!, was("olive"), known)!.weight).toBe(of.lines[2]!.weight);
    const cocoa = insteadOf(of, of.lines[1]!, was("cocoa-raw"), known)!;
    expect([cocoa.weight, cocoa.wax!.weight < of.lines[0]!.weight]).toEqual([of.lines[1]!.weight, true]);
    expect(cocoa.firm).toBeCloseTo(firmness(mixOf(of.lines), SAID_AT, TRADE), 2);
    const clove = insteadOf(of, of.lines[3]!, was("eo-clove-bud"), known)!;
    expect(clove.weight / clove.pot.total).toBeCloseTo(0.005, 4);
    expect([clove.worse.map((j) => j.key), clove.reasons]).toEqual([
      [],
      ["enough on hand", "its ceiling allows less of it", "a middle note too"],
    ]);
  });
  it("what it costs counts the wax that goes with it; where something has no cost, nothing is said of it", () => {
    const of = pot("balm", BALM);
    const cocoa = insteadOf(of, of.lines[1]!, was("cocoa-raw"), known)!;
    // Everything is two cents a gram here: what is saved is the wax.
    expect(cocoa.dearer).toBe((cocoa.wax!.weight - of.lines[0]!.weight) * 20);
    const dear = new Map(known).set(was("cocoa-raw").id, { ...was("cocoa-raw"), per: { value: micros(50_000_000), per: 1_000_000 } });
    expect(insteadOf(of, of.lines[1]!, was("cocoa-raw"), dear)!.dearer).toBe(80_000 * 30 + cocoa.dearer!);
    expect(insteadOf(of, of.lines[1]!, was("cocoa-raw"), new Map())!.dearer).toBeNull();
  });
  it("a weak lot replaced is a weak lot gone; a stand-in's own lots count, as many as it takes", () => {
    const of = pot("balm", BALM);
    const weak = { ...of.lines[2]!, lots: [{ number: "A1", bestBefore: "2027-02-01" }] };
    const old = { ...of, lines: of.lines.map((l) => (l.row === 2 ? weak : l)) };
    const by = (lots: StandIn["lots"]) => insteadOf(old, weak, { ...was("olive"), lots }, known)!;
    expect(by(was("olive").lots).better.map((j) => j.key)).toEqual([`keeps ${was("almond").name}`]);
    const two = [
      { number: "B1", bestBefore: "2027-09-01", onHand: 150_000 },
      { number: "B2", bestBefore: "2027-05-01", onHand: 900_000 },
    ];
    expect(by(two).worse.map((j) => j.say)).toEqual(["Made today it keeps 5 months, not 12."]);
    expect(by([{ ...two[0]!, onHand: 200_000 }, two[1]!]).worse.map((j) => j.say)).toEqual(["Made today it keeps 9 months, not 12."]);
  });
  it("what lengthens it most stands for what turns first: the longest, then the cheapest; none, where nothing keeps longer", () => {
    const of = pot("balm", BALM);
    const old = { ...of, lines: of.lines.map((l) => (l.row === 2 ? { ...l, lots: [{ number: "A1", bestBefore: "2027-02-01" }] } : l)) };
    const cheap = { ...was("jojoba"), per: { value: micros(1_000_000), per: 1_000_000 } };
    const soon = { ...was("grapeseed"), lots: [{ number: "G1", bestBefore: "2027-01-01", onHand: 1_000_000 }] };
    const own = of.lines.map((l) => known.get(l.of)!);
    const found = lengthened(old, [...own, was("olive"), cheap, soon])!;
    expect([found.line.row, found.instead.by.name, found.instead.months]).toEqual([2, was("jojoba").name, 12]);
    expect(putIn(old, found.line, found.instead).rows).toEqual([
      { row: 2, entered: "200.0 g", material: was("jojoba").name, form: "liquid" },
    ]);
    expect(lengthened(old, [...own, soon])).toBeNull();
    expect(lengthened(of, ALL)).toBeNull();
  });
  it("only its like stands in for a thing, never itself nor what is in it already, best first", () => {
    const of = pot("balm", BALM);
    for (const l of of.lines) {
      const found = standIns(of, l, ALL);
      expect(found.length).toBeGreaterThan(2);
      expect(found.every((s) => likeKinds(l.kind).includes(s.by.kind) && !of.lines.some((x) => x.of === s.by.id))).toBe(true);
      expect(found.map((s) => s.rank)).toEqual([...found.map((s) => s.rank)].sort((a, b) => a - b));
    }
  });
  it.each(["bee", "nut", "animal"] as const)("one press makes it free of it: %s", (w) => {
    const of = pot("balm", BALM);
    const { rows, left } = replaceAll(
      of,
      ALL,
      (l) => WITHOUT[w].fits(known.get(l.of)!),
      (m) => !WITHOUT[w].fits(m),
    );
    expect(left).toEqual([]);
    const there = of.lines.map((l) => {
      const material = rows.find((r) => r.row === l.row)?.material;
      return ALL.find((m) => m.name === material) ?? known.get(l.of)!;
    });
    expect(there.some((m) => WITHOUT[w].fits(m))).toBe(false);
  });
  it("made from what there is: only what there is enough of comes in; what nothing stands in for is named", () => {
    const of = pot("balm", BALM);
    const few = [...of.lines.map((l) => known.get(l.of)!), was("olive"), { ...was("eo-orange"), lots: [] }];
    const { rows, left } = replaceAll(
      of,
      few,
      (l) => l.row >= 2,
      (m, weight) => onHandOf(m) >= weight,
    );
    expect([rows.map((r) => [r.row, r.material]), left]).toEqual([[[2, was("olive").name]], [was("eo-lavender").name]]);
  });
  it("nothing stands in where grams and shares are mixed, as the shares would move with it", () => {
    const of = pot("balm", BALM);
    const mixed = { ...of, lines: of.lines.map((l, i) => (i ? l : { ...l, amount: { ...l.amount, unit: "part" as const } })) };
    expect(standIns(mixed, mixed.lines[0]!, ALL)).toEqual([]);
  });
  it.each(["part", "percent"] as const)("written in %s, the sheet comes to the pot that was shown", (unit) => {
    const grams = pot("balm", [
      ["beeswax-yellow", 15],
      ["shea-unrefined", 20],
      ["almond", 64],
      ["eo-lavender", 1],
    ]);
    const whole = unit === "percent" ? grams.total / 100 : 4000;
    const of = { ...grams, lines: grams.lines.map((l) => ({ ...l, amount: { n: new Fraction(l.weight).div(whole), unit } })) };
    for (const line of of.lines)
      for (const found of standIns(of, line, ALL).slice(0, 6)) {
        const { rows } = putIn(of, line, found);
        const read = of.lines.map((l) => parseAmount(rows.find((r) => r.row === l.row)?.entered ?? showAmount(l.amount)));
        const amounts = read.map((a) => (a.ok ? a.value : null)!);
        expect(amounts.every((a) => a.unit === unit)).toBe(true);
        const facts = { name: "", form: "liquid" as const, densities: {} };
        const out = weighRecipe(
          amounts.map((amount) => ({ amount, facts })),
          of.total,
        );
        expect(out.problem).toBeNull();
        for (const [i, l] of found.pot.lines.entries())
          expect(Math.abs((out.lines[i] as { share: number }).share - l.weight / found.pot.total)).toBeLessThan(2e-5);
        expect(rows.find((r) => r.row === line.row)!.material).toBe(found.by.name);
      }
  });
  it("says what is other to hand and nose, and ranks by it; an order of one thing has the nearest in it first", () => {
    const of = pot("balm", BALM);
    const [, shea, almond, lavender] = of.lines;
    const said = (line: typeof shea, key: string) => insteadOf(of, line!, was(key), known)!.reasons.join(", ");
    expect(said(almond, "castor")).toMatch(/richer on the skin/);
    expect(said(almond, "sesame")).toMatch(/richer on the skin, smells strongly of itself/);
    expect(said(shea, "mango")).toMatch(/lighter on the skin, smells less of itself/);
    expect(said(of.lines[0], "carnauba")).toMatch(/smells less of itself, melts 21 °C warmer/);
    expect(said(lavender, "eo-cedarwood")).toMatch(/a base note$/);
    // Where nothing is known, there is no judgement.
    const unsaid = { ...was("carnauba"), smell: "" as const, feel: "" as const, meltFrom: null };
    expect(insteadOf(of, of.lines[0]!, unsaid, known)!.reasons.join(", ")).not.toMatch(/smell|skin|melts/);
    const first = (order: Parameters<typeof ordered>[1], line = almond!) => {
      const found = standIns(of, line, ALL);
      return ordered(found, order, known.get(line.of)).map((s) => s.by);
    };
    const light = first("feel").findIndex((m) => m.feel !== "light");
    expect(light).toBeGreaterThan(5);
    expect(
      first("feel")
        .slice(light)
        .every((m) => m.feel !== "light"),
    ).toBe(true);
    expect(
      first("scent", lavender)
        .slice(0, 6)
        .every((m) => m.scentNote === "middle"),
    ).toBe(true);
    expect(first("melting", of.lines[0])[0]!.libraryKey).toBe("beeswax-white");
    expect(first("all")).toEqual(standIns(of, almond!, ALL).map((s) => s.by));
    const cheap = ALL.map((m) => (m.libraryKey === "neem" ? { ...m, per: { value: micros(1), per: 1_000_000 } } : m));
    expect(ordered(standIns(of, almond!, cheap), "cost", known.get(almond!.of))[0]!.by.libraryKey).toBe("neem");
  });
  it("a scent comes up to what its own lot's paper allows, and not at all where that is nothing", () => {
    const of = pot("balm", BALM);
    const by = (scentMostPpm: number) =>
      insteadOf(
        of,
        of.lines[3]!,
        { ...was("eo-cedarwood"), lots: [{ number: "C1", bestBefore: null, onHand: 9_000, scentMostPpm }] },
        known,
      );
    expect(by(2_000)!.weight / by(2_000)!.pot.total).toBeCloseTo(0.002, 4);
    expect(by(0)).toBeNull();
    // All of it is as much as is wanted.
    expect(by(1_000_000)!.weight).toBe(of.lines[3]!.weight);
  });
});
