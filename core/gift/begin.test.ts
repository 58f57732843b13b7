/** What an order lacks, counted back from the day it is due: each case worked out by hand. Days ahead are common practice, no source. */
import { describe, expect, it } from "vitest";
import { mg, micros } from "../measure/exact.ts";
import type { Lot } from "../stock/lots.ts";
import { stockOnHand } from "../stock/shelf.ts";
import { stateOfOrder, stepsFor, unitNeeds, type Lacking, type Means, type OrderStep } from "./begin.ts";

const TODAY = "2026-11-02";
const DUE = "2026-12-20";
/** Three days before: 17 December. */
const MADE = "2026-12-17";
/** The day before. */
const PACKED = "2026-12-19";
const [BALM, STICK, OIL, WAX, TIN, BOX] = [1, 2, 11, 12, 13, 14];
const lot = (of: number, onHand: number): Lot => ({
  id: of * 10,
  of,
  onHand,
  value: micros(0),
  ...{ number: "L", arrived: "2026-01-01", bestBefore: null, hold: false },
});

/** A balm of three parts oil and one wax, 60 g in a tin; nothing stays in the pot. */
const balm = {
  recipe: { lossBp: 0 },
  lines: [
    { materialId: OIL, weight: mg(300_000) },
    { materialId: WAX, weight: mg(100_000) },
  ],
};
const size = { fill: mg(60_000), packaging: [{ materialId: TIN, pieces: 1 }], additions: [] };
const means = (more: Partial<Means> = {}): Means => ({
  today: TODAY,
  make: (productId, units) => (productId === BALM ? { recipeId: 5, needs: unitNeeds(balm, size, units) } : null),
  bench: [],
  shelf: stockOnHand([lot(OIL, 1_000_000), lot(WAX, 1_000_000), lot(TIN, 100)], TODAY),
  jars: [],
  steeped: new Map(),
  coming: new Map(),
  leadDays: 14,
  ...more,
});
const order = (units: number, more: Partial<Lacking> = {}): Lacking => ({
  ...{ orderId: 1, due: DUE, units: [{ productId: BALM, units }], pieces: [] },
  ...more,
});
const steps = (m: Means, ...orders: Lacking[]) => [...stepsFor(orders, m).values()].map((own) => own.map(inWords));
const inWords = (s: OrderStep): string => {
  const of = "productId" in s ? s.productId : s.materialId;
  const which = s.does === "pour" ? ` batch ${s.batchId}` : s.does === "strain" ? ` jar ${s.jarId} from ${s.from}` : "";
  return `${s.does} ${s.amount} of ${of}${s.does === "fill" ? ` by ${s.method}` : ""}${which} until ${s.by}`;
};

describe("what to begin", () => {
  it.each<[string, Means, Lacking, string[]]>([
    ["everything is on the shelf: made three days before", means(), order(6), [`make 6 of ${BALM} until ${MADE}`]],
    [
      // 6 × 60 g are 360 g: 270 g oil and 90 g wax; 200 and 90 are there, and 2 of 6 tins.
      "what it is made of runs short: ordered a fortnight before it is made",
      means({ shelf: stockOnHand([lot(OIL, 200_000), lot(WAX, 90_000), lot(TIN, 2)], TODAY) }),
      order(6),
      [`buy 70000 of ${OIL} until 2026-12-03`, `buy 4 of ${TIN} until 2026-12-03`, `make 6 of ${BALM} until ${MADE}`],
    ],
    [
      "an oil steeped here: the jar on the wall gives 50 g, the other 20 g are steeped, four weeks on the shelf",
      means({
        shelf: stockOnHand([lot(OIL, 200_000), lot(WAX, 90_000), lot(TIN, 6)], TODAY),
        jars: [{ jarId: 8, materialId: OIL, expected: mg(50_000), earliest: "2026-12-01" }],
        steeped: new Map([[OIL, "shelf"]]),
      }),
      order(6),
      [
        `fill 20000 of ${OIL} by shelf until 2026-11-19`,
        `make 6 of ${BALM} until ${MADE}`,
        `strain 50000 of ${OIL} jar 8 from 2026-12-01 until ${MADE}`,
      ],
    ],
    [
      // On 2 December fifteen days are left, and a window takes five at the least.
      "too late for the dark shelf: the slowest way that is in time",
      means({ today: "2026-12-02", shelf: stockOnHand([lot(WAX, 90_000), lot(TIN, 6)], TODAY), steeped: new Map([[OIL, "shelf"]]) }),
      order(6),
      [`fill 270000 of ${OIL} by window until 2026-12-12`, `make 6 of ${BALM} until ${MADE}`],
    ],
    [
      // A day is left: the pot of water or the cooker, never spirit for one who doesn't work with it.
      "in a hurry: by gentle heat",
      means({ today: "2026-12-16", shelf: stockOnHand([lot(WAX, 90_000), lot(TIN, 6)], TODAY), steeped: new Map([[OIL, "shelf"]]) }),
      order(6),
      [`fill 270000 of ${OIL} by cooker until ${MADE}`, `make 6 of ${BALM} until ${MADE}`],
    ],
    [
      "bought already: only to be here by then",
      means({ shelf: stockOnHand([lot(OIL, 270_000), lot(TIN, 6)], TODAY), coming: new Map([[WAX, 500_000]]) }),
      order(6),
      [`make 6 of ${BALM} until ${MADE}`, `await 90000 of ${WAX} until ${MADE}`],
    ],
    [
      "four are on the bench: two more are made",
      means({ bench: [{ batchId: 3, productId: BALM, units: 4 }] }),
      order(6),
      [`pour 4 of ${BALM} batch 3 until ${MADE}`, `make 2 of ${BALM} until ${MADE}`],
    ],
    ["no longer made", means(), order(0, { units: [{ productId: STICK, units: 2 }] }), [`instead 2 of ${STICK} until ${PACKED}`]],
    [
      "wrapping: there when it is packed",
      means(),
      order(0, { units: [], pieces: [{ materialId: BOX, pieces: 3 }] }),
      [`buy 3 of ${BOX} until 2026-12-05`],
    ],
  ])("%s", (_, m, o, expected) => expect(steps(m, o)[0]!.sort()).toEqual([...expected].sort()));

  it("what presses most stands first", () => {
    const all = stepsFor([order(6)], means({ shelf: stockOnHand([lot(OIL, 270_000)], TODAY) })).get(1)!;
    expect(all.map((s) => s.does)).toEqual(["buy", "buy", "make"]);
  });
  it("two orders share one shelf, one bench and one jar, the one due sooner first", () => {
    const m = means({
      shelf: stockOnHand([lot(OIL, 400_000), lot(WAX, 1_000_000), lot(TIN, 9)], TODAY),
      bench: [{ batchId: 3, productId: BALM, units: 3 }],
      jars: [{ jarId: 8, materialId: OIL, expected: mg(100_000), earliest: TODAY }],
    });
    const later = order(8, { orderId: 2, due: "2026-12-24" });
    // The sooner takes the bench's three and makes 3 (135 g oil, 3 tins); the later makes 8: 360 g oil of 265, 8 tins of 6.
    expect(steps(m, later, order(6))).toEqual([
      [`pour 3 of ${BALM} batch 3 until ${MADE}`, `make 3 of ${BALM} until ${MADE}`],
      [
        `buy 2 of ${TIN} until 2026-12-07`,
        `make 8 of ${BALM} until 2026-12-21`,
        `strain 95000 of ${OIL} jar 8 from ${TODAY} until 2026-12-21`,
      ],
    ]);
  });
  it("two sizes that want the same oil buy it once", () => {
    const two = order(0, { units: [3, 4].map((n) => ({ productId: BALM, units: n })) });
    const m = means({ shelf: stockOnHand([lot(WAX, 1_000_000), lot(TIN, 9)], TODAY) });
    expect(steps(m, two)[0]).toContain(`buy 315000 of ${OIL} until 2026-12-03`);
  });
  it("what stays in the pot, and what is stirred into a variant, is needed too", () => {
    // 2 × 60 g and a fiftieth that stays: 122.449 g, of which 2 % is stirred in.
    const needs = unitNeeds({ ...balm, recipe: { lossBp: 200 } }, { ...size, additions: [{ materialId: BOX, ppm: 20_000 }] }, 2);
    expect(needs.map((n) => [n.of, n.amount])).toEqual([
      [OIL, 91_837],
      [WAX, 30_612],
      [BOX, 2449],
      [TIN, 2],
    ]);
  });
});

describe("how an order stands", () => {
  const buy = (by: string): OrderStep => ({ does: "buy", materialId: OIL, amount: 1, by });
  it.each<[string, string, OrderStep[], string]>([
    [DUE, TODAY, [], "ready"],
    [DUE, TODAY, [buy(TODAY)], "missing"],
    [DUE, "2026-11-03", [buy(TODAY)], "late"],
    [DUE, DUE, [], "ready"],
    [DUE, "2026-12-21", [], "late"],
    // A jar that isn't ready by then.
    [DUE, TODAY, [{ does: "strain", jarId: 8, materialId: OIL, amount: 1, by: MADE, from: "2026-12-18" }], "late"],
    [DUE, TODAY, [{ does: "strain", jarId: 8, materialId: OIL, amount: 1, by: MADE, from: MADE }], "missing"],
  ])("due %s, on %s", (due, today, own, standing) => expect(stateOfOrder(due, own, today)).toBe(standing));
});
