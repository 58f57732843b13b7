/** Word for word: lots, packs, receipts, buying, allocations and batches, on either side of each edge. */
import { it } from "vitest";
import { finishedCost, pourResult, type PourIn } from "#core/batch/finishing/result";
import { readSize, SIZE_MODE_IDS } from "#core/batch/planning/size";
import type { StockFacts } from "#core/material/facts";
import { KIND_IDS } from "#core/material/kinds";
import { mg, micros } from "#core/measure/exact";
import { onScale, showSteps, batchFor } from "#core/recipe/scale";
import { drawValue, lotState, firstExpiredFirst, whyFirst, type Lot } from "#core/stock/lots";
import { packAmount, readStock, stockWeight } from "#core/stock/packs";
import { unitsFor, unitsForStall, allocateUnits } from "#core/stock/allocations";
import { landReceipt, type ReceiptIn } from "#core/stock/receipt";
import { reorderPoint, toBuy, usedPerDay, type StockLine } from "#core/stock/reorder";
import { replay, type Entry } from "#core/ledger/replay";
import { mayUse, type Use } from "#core/stock/use";
import { each, expectWording, trying } from "./expectWording.ts";
import { planTakes, stockOnHand } from "#core/stock/shelf";

const TODAY = "2026-11-25";
const OIL: StockFacts = {
  name: "Olive oil",
  form: "liquid",
  densities: { liquid: 915 },
  dropsPerMl: null,
  pieceMg: null,
  measured: "weight",
};
const TIN: StockFacts = { ...OIL, name: "Tin", form: "block", densities: {}, measured: "count" };
const lot = (id: number, over: Partial<Lot> = {}): Lot => ({
  id,
  number: `R${id}`,
  of: 1,
  onHand: 10,
  value: micros(1000),
  arrived: "2026-01-01",
  bestBefore: null,
  hold: false,
  ...over,
});

it("lots", () => {
  const lots = [
    lot(1),
    lot(2),
    lot(3, { bestBefore: "2027-06-01" }),
    lot(4, { bestBefore: "2027-01-01" }),
    lot(5, { arrived: "2025-01-01" }),
    lot(6, { hold: true }),
    lot(7, { bestBefore: "2026-11-24" }),
    lot(8, { onHand: 0 }),
    lot(9, { bestBefore: TODAY }),
    lot(10, { bestBefore: "2027-01-24" }),
    lot(11, { bestBefore: "2027-01-25" }),
  ];
  return expectWording("shelf/lots", [
    ["states", lots.map((l) => `${l.number} ${lotState(l, TODAY)}`)],
    [
      "use first",
      [...lots]
        .reverse()
        .sort(firstExpiredFirst)
        .map((l) => l.number),
    ],
    ...([[0, 1], [0, 2], [2, 0], [2, 3], [4, 0], [0]] as const).map(
      (of) => [`why ${of.join(" before ")}`, whyFirst(of.map((i) => lots[i]!))] as const,
    ),
    ...([0, 3, 10, 11, -1] as const).map((n) => [`draw ${n} of 10`, trying(() => drawValue(lot(1, { value: micros(333) }), n))] as const),
    ...([[3], [25, 25], [200], [10, 10, 1]] as const).map(
      (needs) =>
        [
          `needs of ${needs.join(" and ")}`,
          planTakes(
            needs.map((amount) => ({ of: 1, amount })),
            stockOnHand(lots, TODAY),
          ),
        ] as const,
    ),
  ]);
});
it("uses", () =>
  expectWording(
    "shelf/uses",
    (["weigh", "melt", "herb", "carrier", "blend", "wrap", "order", "stall"] as Use[]).flatMap((use) => [
      [`${use} takes`, [...KIND_IDS, null].filter((kind) => mayUse({ ...lot(1), kind }, use, TODAY).ok)] as const,
      ...(
        [{ hold: true }, { hold: true, holdReason: "smells" }, { bestBefore: "2026-11-24" }, { bestBefore: TODAY }, { onHand: 0 }] as const
      ).flatMap((over) =>
        (["herb", "oil", "container", null] as const).map(
          (kind) => [`${use} ${kind ?? "units"} ${JSON.stringify(over)}`, mayUse({ ...lot(1), kind, ...over }, use, TODAY)] as const,
        ),
      ),
    ]),
  ));
it("packs and receipts", () => {
  const receipt = (over: Partial<ReceiptIn>): unknown =>
    landReceipt({
      lines: [
        { price: micros(10e6), weight: mg(1000) },
        { price: micros(30e6), weight: null },
      ],
      postage: micros(0),
      tax: micros(0),
      discount: micros(0),
      spreadBy: "value",
      rate: 1_000_000,
      ...over,
    });
  const free = [
    { price: micros(0), weight: mg(1000) },
    { price: micros(0), weight: mg(3000) },
  ];
  return expectWording("numbers/packs", [
    ...each(["", "0", "0 g", "500 g", "1 L", "2 pcs", "x", "1000001", "12"], (t) =>
      [readStock(t, OIL), readStock(t, TIN)].map((o) => (o.ok ? o.value : `${o.problem.code}: ${o.problem.say}`)),
    ),
    ...each(["1000000", "1000001", "1.5", "3 cups"], (t) => readStock(t, TIN)),
    ...(
      [
        [2, "500 g"],
        [1, "0"],
        [1000, "1 kg"],
        [1001, "1 kg"],
        [1, "x"],
      ] as const
    ).map(([n, t]) => [`${n} of ${t}`, packAmount(n, t, OIL)] as const),
    [
      "weigh",
      [
        stockWeight(10, OIL, null),
        stockWeight(10, TIN, null),
        stockWeight(10, TIN, 14_000),
        stockWeight(10, { ...TIN, pieceMg: mg(5) }, 14_000),
      ],
    ],
    ["plain", receipt({})],
    ["discount of all", receipt({ discount: micros(40e6) })],
    ["discount over", receipt({ discount: micros(40_010_000) })],
    [
      "a cent off each of three that cost a cent",
      receipt({ lines: [1, 1, 1].map(() => ({ price: micros(10_000), weight: null })), discount: micros(20_000) }),
    ],
    [
      "dear and cheap, nearly all off",
      receipt({
        lines: [
          { price: micros(20_000), weight: null },
          { price: micros(10_000), weight: null },
          { price: micros(10_000), weight: null },
        ],
        discount: micros(30_000),
      }),
    ],
    ["postage by weight, one unknown", receipt({ postage: micros(1e6), spreadBy: "weight" })],
    ["no postage by weight, one unknown", receipt({ spreadBy: "weight" })],
    [
      "postage by weight",
      receipt({
        lines: [
          { price: micros(1e6), weight: mg(1000) },
          { price: micros(1e6), weight: mg(3000) },
        ],
        postage: micros(4e6),
        spreadBy: "weight",
      }),
    ],
    ["presents with postage", receipt({ lines: free, postage: micros(2e6) })],
    ["one present with postage", receipt({ lines: [free[0]!, { price: micros(5e6), weight: null }], postage: micros(2e6) })],
    ["abroad", receipt({ postage: micros(4e6), tax: micros(2_010_000), rate: 930_000 })],
  ]);
});
it("buying again", () => {
  const line = (over: Partial<StockLine>): StockLine => ({ onHand: 100, coming: 0, reorderBy: "use", reorderAt: 500, perDay: 10, ...over });
  const rule = { leadDays: 14, coverDays: 60 };
  const use = (...months: [string, number][]) =>
    [
      months.map((m) => m.join(": ")).join(", "),
      usedPerDay(
        months.map(([month, used]) => ({ month, used })),
        TODAY,
      ),
    ] as const;
  return expectWording("shelf/buying", [
    ...[
      line({}),
      line({ reorderBy: "never" }),
      line({ reorderBy: "hand" }),
      line({ reorderBy: "hand", perDay: null }),
      line({ reorderBy: "hand", reorderAt: null }),
      line({ perDay: null }),
      line({ onHand: 279 }),
      line({ onHand: 280 }),
      line({ onHand: 200, coming: 80 }),
      line({ perDay: 0.01 }),
      line({ perDay: 0 }),
    ].map((l) => [JSON.stringify(l), [reorderPoint(l, rule), toBuy(l, rule)]] as const),
    use(),
    use(["2026-11-01", 240]),
    use(["2026-11-12", 50]),
    use(["2026-11-11", 140]),
    use(["2026-04-01", 900], ["2026-05-01", 600], ["2026-10-01", 0], ["2026-11-01", 60]),
    use(["2026-10-01", 60], ["2026-05-01", 600], ["2026-06-01", -700]),
    use(["2026-06-01", -700], ["2026-12-01", 99]),
    use(["2026-11-25", 9], ["2026-10-01", 550]),
  ]);
});
it("promises", () => {
  const lots = [lot(1), lot(2, { hold: true }), lot(3, { bestBefore: "2026-11-24" }), lot(4, { of: 2, onHand: 3 })];
  const stall = (dayId: number, lotId: number, taken: number) => ({ dayId, name: `Day ${dayId}`, lotId, taken });
  const wish = (orderId: number, due: string, of: number, units: number) => ({ orderId, customer: `No ${orderId}`, due, of, units });
  const stand = allocateUnits(
    lots,
    [stall(7, 1, 4), stall(8, 1, 3), stall(8, 4, 5)],
    [wish(3, "2026-12-05", 1, 2), wish(2, "2026-12-01", 1, 2), wish(1, "2026-12-05", 1, 2), wish(4, "2026-12-01", 9, 1)],
    TODAY,
  );
  return expectWording("shelf/promises", [
    ...[...stand].map(
      ([of, s]) => [`product ${of}`, { ...s, lots: s.lots.map((l) => [l.lot.number, l.usable, l.open, [...l.stalls]]) }] as const,
    ),
    [
      "for orders",
      [
        [1, 1],
        [1, 2],
        [1, null],
        [5, 1],
        [9, 4],
      ].map(([of, order]) => unitsFor(stand.get(of!), order!, null)),
    ],
    [
      "for a stall",
      [
        [1, 1, 0],
        [1, 1, 2],
        [1, 4, 0],
        [2, 4, 0],
        [5, 1, 0],
      ].map(([of, lotId, along]) => unitsForStall(stand.get(of!), lotId!, new Map([[9, along!]]), null)),
    ],
    [
      "free and for a stall",
      [0, 1, 9].map((along) =>
        unitsForStall(allocateUnits([lot(1), lot(2)], [], [wish(1, TODAY, 1, 12)], TODAY).get(1), 2, new Map([[1, along]]), null),
      ),
    ],
  ]);
});
it("a lot's books gone through again", () => {
  const e = (how: Entry["how"], qty: number, value = 0): Entry => ({ how, qty, value: micros(value) });
  return expectWording("shelf/books", [
    ["drawn in two", replay([e("came", 3, 100), e("drawn", 1), e("drawn", 2)])],
    ["drawn too much", replay([e("came", 3, 100), e("drawn", 1), e("drawn", 3)])],
    ["found", replay([e("came", 4, 100), e("drawn", 4), e("found", 2)])],
    ["found in what came for nothing", replay([e("came", 0, 100), e("found", 2)])],
    ["found in a lot that never came", replay([e("found", 2), e("drawn", 1)])],
    ["came twice", replay([e("came", 4, 100), e("came", 1, 1000), e("found", 2), e("drawn", 7)])],
  ]);
});
it("batches", () => {
  const pour = (over: Partial<PourIn> & { fill?: number; units?: number }): unknown =>
    pourResult({
      weighed: mg(1000),
      ingredients: micros(1000),
      sizes: [{ units: over.units ?? 2, fill: mg(over.fill ?? 450), packaging: micros(10), minutes: 6 }],
      leftover: mg(50),
      rates: { hourly: micros(10_000), overheadHourly: micros(1000) },
      ...over,
    });
  const made = { units: 10, minutesHundredths: 600, hourly: micros(16_000_000), overheadHourly: micros(1_000_000) };
  const sized = {
    recipe: { lossBp: 200, total: mg(1_000_000) },
    lines: [{ materialId: 1, weight: mg(250_000) }],
    sizes: [
      { id: 1, fill: mg(60_000), label: "60 g" },
      { id: 2, fill: mg(10_000), label: "10 g" },
    ],
  };
  const size = (mode: (typeof SIZE_MODE_IDS)[number], units: string[], weight = "500 g", lotId = 1, lossBp = 200) =>
    [
      `${mode} ${units.join("+")} ${weight} of lot ${lotId}, loss ${lossBp}`,
      readSize({ mode, weight, lotId, units }, { ...sized, recipe: { ...sized.recipe, lossBp } }, [
        lot(1, { onHand: 100_000 }),
        lot(2, { of: 2 }),
      ]),
    ] as const;
  return expectWording("workroom/batches", [
    ...[
      {},
      { sizes: [] },
      { units: 0 },
      { leftover: mg(1000) },
      { leftover: mg(999), fill: 1, units: 1 },
      { fill: 485 },
      { fill: 486 },
      { fill: 475 },
    ].map((over) => [`pour ${JSON.stringify(over)}`, pour(over)] as const),
    ...[
      made,
      { ...made, units: null },
      { ...made, minutesHundredths: null },
      { ...made, hourly: null },
      { ...made, overheadHourly: null },
      { ...made, units: 0 },
    ].map((m) => [`cost ${JSON.stringify(m)}`, trying(() => finishedCost({ onHand: 5, value: micros(10_000_000) }, m))] as const),
    ...SIZE_MODE_IDS.map((mode) => size(mode, ["", "2"])),
    ...["x", "1.5", " ", "5000", "5001", "0"].map((n) => size("pots", [n, ""])),
    ...["100", "9", "8"].map((n) => size("grams", [n, ""])),
    ...["", "9 g", "10.3 g", "1000 kg", "x"].map((weight) => size("grams", ["", ""], weight)),
    size("lot", ["", ""], "", 2),
    size("lot", ["", ""], "", 9),
    ...[0, 1, 49, 50, 51, 99, 100, 149, 150, 3250].map((w) => [`${w} mg on 0.1 g`, onScale(mg(w), { unit: "g", step: 100 })] as const),
    ["steps", [1000, 999, 100, 99, 10, 9, 1].map((step) => showSteps(7, { unit: "g", step }))],
    [
      "batch for",
      [
        [16, 60_000, 200],
        [1, 1, 9999],
        [7, 333, 1],
        [3, 100, 0],
      ].map(([units, fill, loss]) => batchFor([{ units: units!, fill: mg(fill!) }], loss!)),
    ],
  ]);
});
