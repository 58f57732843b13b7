/** The order of a day's work, and the cabinet's ages: against plain rules, for any work and any day. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ageOf, lives } from "./cabinet/ages.ts";
import { SOON_DAYS } from "./stock/lots.ts";
import { addDays, daysBetween } from "./when.ts";
import { inOrder, mustBe, sayMinutes, turnOf, WORK, WORK_KINDS, type Task } from "./work.ts";

const TODAY = "2026-11-26";
const day = fc.integer({ min: -40, max: 60 }).map((n) => addDays(TODAY, n));
const task: fc.Arbitrary<Task> = fc.record({ kind: fc.constantFrom(...WORK_KINDS), day });

describe("a day's work", () => {
  it("is all there, what presses first, and of one day the shorter first", () => {
    fc.assert(
      fc.property(fc.array(task, { maxLength: 30 }), (tasks) => {
        const sorted = inOrder(tasks, TODAY);
        expect(new Set(sorted)).toEqual(new Set(tasks));
        const turns = sorted.map((t) => ["now", "week", "time"].indexOf(turnOf(t, TODAY)));
        expect(turns).toEqual([...turns].sort());
        // Whatever else is due, a recall comes before it.
        const recalls = sorted.filter((t) => t.kind === "recall");
        expect(sorted.slice(0, recalls.length)).toEqual(recalls);
        const rest = sorted.slice(recalls.length);
        for (const [i, t] of rest.entries()) {
          const next = rest[i + 1];
          if (next && turnOf(t, TODAY) === "now" && turnOf(next, TODAY) === "now")
            expect(WORK[t.kind].minutes).toBeLessThanOrEqual(WORK[next.kind].minutes);
        }
      }),
    );
  });
  it.each<[Task["kind"], string | null, string | null, string]>([
    ["open", "2026-11-20", TODAY, "now"],
    ["late", "2026-11-01", TODAY, "now"],
    ["toPack", "2026-11-27", TODAY, "now"],
    ["toPack", "2026-11-28", "2026-11-27", "week"],
    ["toPack", "2026-12-03", "2026-12-02", "week"],
    ["toPack", "2026-12-04", "2026-12-03", "time"],
    ["toMake", "2026-11-29", TODAY, "now"],
    ["toMake", "2026-12-20", "2026-12-17", "time"],
    ["ready", "2026-11-24", "2026-12-01", "week"],
    ["ready", "2026-11-10", "2026-11-17", "now"],
    ["toClose", "2026-11-25", "2026-11-25", "now"],
    ["low", null, null, "time"],
  ])("%s of %s has to be done by %s: %s", (kind, about, by, turn) => {
    expect([mustBe({ kind, day: about }, TODAY), turnOf({ kind, day: about }, TODAY)]).toEqual([by, turn]);
  });
  it.each([
    [1, "a moment"],
    [4, "about 5 min"],
    [58, "about 1 h"],
    [63, "about 1 h"],
    [70, "about 1 h 15 min"],
    [600, "about 10 h"],
  ])("%i minutes are %s", (n, say) => expect(sayMinutes(n)).toBe(say));
});

describe("ages", () => {
  const lots = fc.array(
    fc.record({
      onHand: fc.integer({ min: 1, max: 50 }),
      made: fc.nat(400),
      keeps: fc.integer({ min: 1, max: 700 }),
    }),
    { maxLength: 20 },
  );
  it("draws every lot once, in the band its day says", () => {
    fc.assert(
      fc.property(lots, (drawn) => {
        const all = drawn.map(({ onHand, made, keeps }, id) => {
          const arrived = addDays(TODAY, -made);
          return { id, number: `L${id}`, onHand, arrived, bestBefore: addDays(arrived, keeps), name: "Balm", label: "60 g" };
        });
        const drawnUp = lives(all, TODAY);
        // Every lot once, its whole life as long as it keeps, the one with the least left first.
        expect(drawnUp.map((l) => l.id).sort((a, b) => a - b)).toEqual(all.map((l) => l.id));
        for (const l of drawnUp) expect([l.age + l.left!, l.onHand]).toEqual([drawn[l.id]!.keeps, drawn[l.id]!.onHand]);
        expect(drawnUp.map((l) => l.left!)).toEqual(drawnUp.map((l) => l.left!).sort((a, b) => a - b));
        for (const l of all) {
          const left = daysBetween(TODAY, l.bestBefore);
          const age = ageOf(l, TODAY);
          expect(age === "past").toBe(left < 0);
          expect(age === "soon").toBe(left >= 0 && left <= SOON_DAYS);
          if (age === "first") expect(daysBetween(l.arrived, TODAY)).toBeLessThanOrEqual(left);
          if (age === "second") expect(daysBetween(l.arrived, TODAY)).toBeGreaterThan(left);
        }
      }),
    );
  });
  it("what nobody dated is young", () => expect(ageOf({ arrived: "2020-01-01", bestBefore: null }, TODAY)).toBe("first"));
});
