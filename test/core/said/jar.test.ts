/** Word for word: the warnings, straining and drying of jars and harvests. */
import { it } from "vitest";
import { dryingState, harvestValue, readDry } from "#core/infusion/drying";
import type { Dryness } from "#core/material/dryness";
import { jarState, jarProgress, wantsShake } from "#core/infusion/tend";
import { infusedBestBefore, strain, type StrainIn } from "#core/infusion/strain";
import { jarWarnings, mayFill, type JarFacts } from "#core/infusion/warnings";
import type { CautionId } from "#core/material/cautions";
import { mg, micros } from "#core/measure/exact";
import { expectWording } from "./expectWording.ts";

const READY = { earliest: "2026-01-10", best: "2026-01-20", latest: "2026-02-20" };
const jar = (over: Partial<JarFacts> = {}): JarFacts => ({
  method: "shelf",
  herbs: [],
  carriers: [],
  ready: READY,
  day: "2026-01-01",
  vesselMl: null,
  fillMl: null,
  looseMl: null,
  ...over,
});
const herb = (dryness: Dryness, ...cautions: CautionId[]): Partial<JarFacts> => ({ herbs: [{ name: "Mint", dryness, cautions }] });
const oil = (over: Partial<JarFacts["carriers"][number]>): Partial<JarFacts> => ({
  carriers: [{ name: "Olive oil", kind: "oil", cautions: [], keepsSealed: null, bestBefore: null, ...over }],
});

it("warnings", () => {
  const jars: [string, Partial<JarFacts>][] = [
    ["nothing", {}],
    ...(["dry", "", "wilted", "fresh"] as const).flatMap((d): [string, Partial<JarFacts>][] => [
      [`${d} herb`, herb(d)],
      [`${d} herb, heated`, { ...herb(d), method: "bath" }],
      [`${d} food plant`, herb(d, "foodPlant")],
      [`${d} herb with cautions`, herb(d, "photosensitising", "restricted", "irritant", "delicate")],
    ]),
    ["solid", oil({ kind: "softButter" })],
    ["solid, heated", { ...oil({ kind: "softButter" }), method: "bath" }],
    ["solid, own way that heats", { ...oil({ kind: "softButter" }), method: "own", heated: true }],
    ...["2025-12-31", "2026-01-01", "2026-04-19", "2026-04-20", "2026-04-21"].map((bestBefore): [string, Partial<JarFacts>] => [
      `best before ${bestBefore}`,
      oil({ bestBefore }),
    ]),
    ...[9, 10].flatMap((keepsSealed): [string, Partial<JarFacts>][] => [
      [`keeps ${keepsSealed}`, oil({ keepsSealed })],
      [`keeps ${keepsSealed}, far best before`, oil({ keepsSealed, bestBefore: "2028-01-01" })],
      [`keeps ${keepsSealed}, heated`, { ...oil({ keepsSealed }), method: "bath" }],
    ]),
    ...(["shelf", "window", "bath", "alcohol"] as const).map((method): [string, Partial<JarFacts>] => [
      `delicate, ${method}`,
      { ...oil({ cautions: ["delicate"] }), method },
    ]),
    ...(
      [
        [1000, 950],
        [1000, 951],
        [1000, 1000],
        [1000, 1001],
        [null, 1001],
        [1000, null],
      ] as const
    ).flatMap(([vesselMl, fillMl]): [string, Partial<JarFacts>][] => [
      [`${fillMl} mL in ${vesselMl}`, { vesselMl, fillMl }],
      [`${fillMl} mL in ${vesselMl}, heated`, { vesselMl, fillMl, method: "bath" }],
    ]),
    ...(
      [
        [105, 100],
        [105.1, 100],
        [null, 100],
        [106, null],
        [106, 101],
      ] as const
    ).map(([looseMl, fillMl]): [string, Partial<JarFacts>] => [`herb to ${looseMl} of ${fillMl}`, { looseMl, fillMl }]),
  ];
  return expectWording(
    "workroom/warnings",
    jars.flatMap(([name, over]) => {
      const found = jarWarnings(jar(over));
      return [
        ...found.map((w) => [name, `${w.code}, ${w.severity}: ${w.why} ${w.instead}`] as const),
        [`${name}, may it be filled`, ["", " ", "I know"].map((why) => mayFill(found, why).ok)] as const,
      ];
    }),
  );
});
it("straining", () => {
  const s = (over: Partial<StrainIn>): unknown =>
    strain({
      oilIn: mg(600_000),
      herbIn: mg(50_000),
      value: micros(9_000_000),
      back: mg(500_000),
      secondBack: null,
      sediment: mg(0),
      bottles: [mg(250_000), mg(250_000)],
      expected: mg(500_000),
      ...over,
    });
  return expectWording("workroom/straining", [
    ["plain", s({})],
    ["no bottle", s({ bottles: [] })],
    ["an empty bottle among others", s({ bottles: [mg(100), mg(0)] })],
    ["all that went in", s({ back: mg(600_000) })],
    ["more than went in", s({ back: mg(600_001) })],
    ["a second straining alike", s({ secondBack: mg(500_000) })],
    ["a second straining of more", s({ secondBack: mg(500_001) })],
    ["a second straining of less than the bottles", s({ secondBack: mg(499_999) })],
    ["sediment and bottles to the gram", s({ back: mg(500_010), sediment: mg(10) })],
    ["sediment and bottles over", s({ back: mg(500_010), sediment: mg(11) })],
    ["no herb, nothing expected", s({ herbIn: mg(0), expected: mg(0) })],
    ...(
      [[null], ["2027-11-30"], ["2027-12-01"], ["2027-12-02"], ["2026-12-31", null, "2027-01-31"], ["2027-01-31", "2026-12-31"]] as const
    ).flatMap((c) =>
      (["dry", "fresh"] as const).map(
        (d) => [`best before of ${c.join(", ")} over ${d}`, infusedBestBefore("2026-12-01", c, [d])] as const,
      ),
    ),
  ]);
});
it("steeping and drying", () => {
  const standing = { ...READY, day: "2026-01-01", method: "shelf" as const };
  return expectWording("workroom/steeping", [
    ...["2026-01-01", "2026-01-09", "2026-01-10", "2026-01-15", "2026-01-16", "2026-01-19", "2026-01-20", "2026-02-20", "2026-02-21"].map(
      (d) =>
        [
          d,
          [
            jarState(READY, d),
            jarProgress(standing, d),
            ...[null, "2026-01-14", "2026-01-12", d].map((last) => wantsShake(standing, last, d)),
          ],
        ] as const,
    ),
    ["of one day", jarProgress({ ...standing, best: standing.day }, standing.day)],
    ...([[], [500], [300], [300, 295], [250, 248], [249, 247], [100, 98], [100, 97], [100, 97.9], [200, 100, 99]] as const).map(
      (w) =>
        [
          `500 g to ${w.join(", ")}`,
          dryingState(
            mg(500_000),
            w.map((g) => mg(g * 1000)),
          ),
        ] as const,
    ),
    ...(
      [
        [0, false],
        [500_000, false],
        [500_001, false],
        [300_000, true],
        [300_001, true],
        [300_001, false],
      ] as const
    ).map(([dry, snaps]) => [`${dry} mg of 500 g, ${snaps ? "snaps" : "bends"}`, readDry(mg(500_000), mg(dry), snaps)] as const),
    ...(["nothing", "hours", "market"] as const).flatMap((by) =>
      [null, { value: micros(4), per: 2 }].map(
        (market) =>
          [
            `${by} ${market ? "with" : "without"} a market price`,
            harvestValue(by, { dry: mg(100), minutes: 30, hourly: micros(10_000_000), market }),
          ] as const,
      ),
    ),
  ]);
});
