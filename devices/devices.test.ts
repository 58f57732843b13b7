/** The simulated scale and thermometer, and the line between them and the bench. */
import { lineCutter, readLine, writeHeat, writeWeight } from "#core/device/lines";
import { mg } from "#core/measure/exact";
import fc from "fast-check";
import { afterEach, describe, expect, it, vi } from "vitest";
import { hand, MOST, newPan, pass, press, shows, STEP, type Pan } from "./scale/pan.ts";
import { speak, type Speaking } from "./speak.ts";
import { hand as atPot, newPot, pass as passPot } from "./thermometer/pot.ts";
import { openWire } from "./wire.ts";

const wait = (pan: Pan, ms: number, chance = (): number => 0.5): void => {
  for (let gone = 0; gone < ms; gone += 50) pass(pan, 50, chance);
};

describe("what a device says", () => {
  const weight = fc.integer({ min: -2000, max: 20_000 }).map((n) => mg(n * 100 || 0));
  it("is read as it was written, however the line was broken up on its way", () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ standing: fc.constantFrom("stable" as const, "moving" as const), net: fc.boolean(), weight })),
        fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 1 }),
        (readings, cuts) => {
          const text = readings.map((r) => `${writeWeight(r, 1)}\r\n`).join("");
          const cut = lineCutter();
          const lines: string[] = [];
          for (let at = 0, i = 0; at < text.length; i++) {
            const end = at + cuts[i % cuts.length]!;
            lines.push(...cut(text.slice(at, end)));
            at = end;
          }
          expect(lines.map((l) => readLine(l))).toEqual(readings.map((reading) => ({ of: "weight", reading })));
        },
      ),
    );
  });
  it.each([
    ["weight 1.5 oz net stable", { of: "weight", reading: { standing: "stable", net: true, weight: 42_524 } }], // 1 oz = 28.349 523 125 g, NIST SP 811
    ["weight over", { of: "weight", reading: { standing: "over" } }],
    ["heat 129.2 F", { of: "heat", reading: { celsius: 54 } }],
    [writeHeat(null), { of: "heat", reading: { celsius: null } }],
    ["hello scale 0.1 g 2000 g simulated", { of: "hello", hello: { kind: "scale", simulated: true, step: 100, most: 2_000_000 } }],
    ["no tare", { of: "answer", to: "tare", done: false }],
  ])("%s", (line, said) => expect(readLine(line)).toEqual(said));
  it("noise is nothing, and what never ends is thrown away", () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        fc.pre(!/^(weight|heat|hello|done|no) /.test(text.trim()));
        expect(readLine(text)).toBeNull();
      }),
    );
    const cut = lineCutter();
    for (let i = 0; i < 50; i++) expect(cut("xxxxxxxxxx")).toEqual([]);
    expect(cut("\nweight over\n")).toContain("weight over");
  });
});

describe("the pan", () => {
  it("settles on what lies on it to a step, moves until then, and is stable afterwards", () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 19_000 }), (tenths) => {
        const pan = newPan();
        hand(pan, `add ${tenths / 10}`);
        wait(pan, 300);
        expect(shows(pan).standing).toBe("moving");
        wait(pan, 8000);
        expect(shows(pan)).toEqual({ standing: "stable", net: false, weight: tenths * 100 });
      }),
    );
  });
  it("tares only what is stable; then it shows what came since, and gross again all of it", () => {
    const pan = newPan();
    hand(pan, "add 312.4");
    wait(pan, 200);
    expect(press(pan, "tare")).toBe(false);
    wait(pan, 6000);
    expect(press(pan, "tare")).toBe(true);
    hand(pan, "add 40 over 4");
    wait(pan, 2000);
    expect(shows(pan).standing).toBe("moving");
    wait(pan, 8000);
    expect(shows(pan)).toEqual({ standing: "stable", net: true, weight: 40_000 });
    press(pan, "gross");
    expect(shows(pan)).toEqual({ standing: "stable", net: false, weight: 352_400 });
    hand(pan, "take 352.4");
    wait(pan, 8000);
    press(pan, "tare");
    expect(press(pan, "dance")).toBe(false);
    expect(hand(pan, "add lots")).toBe(false);
  });
  it("drifts by hundredths of a gram, and says when it carries too much", () => {
    const pan = newPan();
    let seed = 1;
    wait(pan, 30 * 60_000, () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647);
    expect(Math.abs(pan.drift)).toBeGreaterThan(0);
    expect(Math.abs(pan.drift)).toBeLessThan(20 * STEP);
    hand(pan, `add ${MOST / 1000 + 1}`);
    wait(pan, 8000);
    expect(shows(pan)).toEqual({ standing: "over" });
  });
});

it("a pot warms to its bath, and cools as Newton's law has it: by the same share in the same time", () => {
  const pot = newPot();
  atPot(pot, "heat on");
  passPot(pot, 20 * 60_000);
  expect(pot.celsius).toBe(82);
  atPot(pot, "heat off");
  const above = [0, 1, 2].map(() => {
    passPot(pot, 5 * 60_000);
    return pot.celsius - 21;
  });
  expect(above[1]! / above[0]!).toBeCloseTo(above[2]! / above[1]!, 10);
  expect(atPot(pot, "hurry 0")).toBe(false);
});

describe("the line", () => {
  const undo: (() => unknown)[] = [];
  afterEach(() => undo.splice(0).forEach((u) => u()));
  const scale = (says: () => string): Speaking => ({
    hello: "hello scale 0.1 g 2000 g",
    pass: () => undefined,
    says,
    told: (l) => l === "tare",
  });

  it("is plugged in by itself, hears what is shown and told, knows when it is gone, and comes back", async () => {
    let port: number | null = null;
    const wire = openWire("weight", () => port);
    undo.push(wire.close);
    expect([wire.now(), await wire.tell("tare")]).toEqual([null, false]);
    const heard: string[] = [];
    wire.hear((s) => heard.push(s ? (s.reading?.standing ?? "hello") : "gone"));
    const first = await speak(
      scale(() => "weight 1.0 g gross stable"),
      0,
    );
    port = first.port;
    await vi.waitFor(() => expect(wire.now()?.reading).toMatchObject({ weight: 1000 }), 5000);
    expect(wire.now()?.hello).toMatchObject({ step: 100, simulated: false });
    expect([await wire.tell("tare"), await wire.tell("dance")]).toEqual([true, false]);
    // Pulled out with somebody's word still on its way.
    const late = wire.tell("tare");
    first.close();
    await vi.waitFor(() => expect(wire.now()).toBeNull(), 5000);
    await late;
    const second = await speak(
      scale(() => "weight 2.0 g gross stable"),
      0,
    );
    port = second.port;
    undo.push(second.close);
    await vi.waitFor(() => expect(wire.now()?.reading).toMatchObject({ weight: 2000 }), 5000);
    expect([heard[0], heard.includes("gone")]).toEqual(["hello", true]);
  });
});
