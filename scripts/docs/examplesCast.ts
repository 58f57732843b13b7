/** Whom the examples beside functions speak of: the materials, lots and sheets they call by name. Only the test of them knows these. */
import Fraction from "fraction.js";
import type { Sets } from "#core/firmness/solids";
import type { Means } from "#core/gift/begin";
import type { HerbFacts } from "#core/infusion/amounts";
import type { JarFacts } from "#core/infusion/warnings";
import type { StockFacts } from "#core/material/facts";
import type { KindId } from "#core/material/kinds";
import type { Meant } from "#core/recipe/scribbled/match";
import { mg, micros } from "#core/measure/exact";
import { parseAmount, type Amount } from "#core/measure/parse";
import { done } from "#core/outcome";
import type { PricingRules } from "#core/pricing/pricingMethods";
import { perUnitOf } from "#core/recipe/cost";
import type { Lot } from "#core/stock/lots";
import { stockOnHand } from "#core/stock/shelf";
import type { Offer } from "#core/stock/offers";

const fact = (name: string, form: StockFacts["form"], density: number): StockFacts => ({
  name,
  form,
  densities: { [form]: density },
  dropsPerMl: null,
  pieceMg: null,
  measured: "weight",
});
const channel = { shareBp: 10_000, feeBp: 0, point: "cent" } as const;

/** An amount as typed. */
const amount = (text: string): Amount => {
  const read = parseAmount(text, "g");
  if (!read.ok) throw new Error(read.problem.say);
  return read.value;
};
/** A line of opening stock with nothing on it. */
const openingLine = { material: "", amount: "", cost: "", known: "paid", bought: "", supplierLot: "", bestBefore: "" };
/** A lot of material 1 with so much of it, worth a tenth of a cent each. */
const lot = (id: number, onHand: number, bestBefore: Lot["bestBefore"] = null): Lot => ({
  id,
  number: `R${id}`,
  of: 1,
  onHand,
  value: micros(onHand * 1000),
  arrived: "2026-01-01",
  bestBefore,
  hold: false,
});
const offer: Offer = {
  supplier: "Far Shore",
  packSize: "1 kg",
  qty: 1_000_000,
  price: micros(20_000_000),
  postage: micros(0),
};

/** A row of a list with these cells. */
const listRow = (cells: Readonly<Partial<Record<string, string>>>) => ({ at: 2, whole: "", text: (f: string) => cells[f] ?? "", above: [] });

export const CAST = {
  listRow,
  noProducts: { find: () => null, said: () => "" },
  reading: { numbers: "comma", dates: "dmy", own: "EUR", today: "2026-12-01" },
  Fraction,
  today: "2026-11-25",
  amount,
  lot,
  lavender: { ...fact("Lavender", "liquid", 885), dropsPerMl: 20 },
  sunflower: fact("Sunflower oil", "liquid", 915),
  waxy: { as: "wax", strength: 1, melts: 63 } satisfies Sets,
  liquid: { as: "liquid" } satisfies Sets,
  meant: (name: string, kind: KindId): Meant => ({ name, kind, also: "", densities: { liquid: 920 }, dropsPerMl: null, pieceMg: null }),
  shea: fact("Shea butter", "block", 900),
  beeswax: { name: "Beeswax", kind: "wax", densities: { pellets: 480 }, dropsPerMl: null, pieceMg: null },
  tins: { name: "Tin", form: "block", densities: {}, dropsPerMl: null, pieceMg: null, measured: "count" } satisfies StockFacts,
  tin: { name: "Tin", usableMl: null, brimMl: null, innerMm: null, fillMm: null },
  petals: { name: "Calendula petals", loose: 60, parts: 1 } satisfies HerbFacts,
  density: done({ cold: 900, filled: 880 }),
  size: {
    units: 10,
    fill: mg(450),
    packaging: [],
    minutesHundredths: 6000,
    unitMinutes: 0,
    hourly: micros(16_000_000),
    overheadHourly: micros(0),
  },
  rates: { hourly: micros(16_000_000), overheadHourly: micros(0) },
  cost: perUnitOf({ ingredients: 2_000_000, packaging: 1_000_000, work: 1_500_000, overhead: 0, loss: 0 }, 1),
  rung: { id: 1, label: "30 g", fill: mg(30_000), cost: micros(2_500_000), prices: {} },
  rules: {
    multipleHundredths: 350,
    marginBp: 4000,
    channels: { market: channel, online: channel, wholesale: channel, gift: channel },
  } satisfies PricingRules,
  /** A workroom with nothing on its shelf. */
  bare: {
    ...{ today: "2026-11-25", make: () => null, bench: [], shelf: stockOnHand([], "2026-11-25"), jars: [] },
    ...{ steeped: new Map(), coming: new Map(), leadDays: 14 },
  } satisfies Means,
  order: { items: [], wrapping: [], wrapMinutes: 0, hourly: micros(0), extra: micros(0), discountBp: 0 },
  day: { lines: [], stallFee: micros(0), travel: micros(0), byCard: micros(0), cardFeeBp: 0, hours: 0 },
  steeping: { method: "shelf", day: "2026-01-01", earliest: "2026-01-10", best: "2026-01-11", latest: "2026-02-20" },
  jar: {
    method: "shelf",
    herbs: [],
    carriers: [],
    ready: { earliest: "2026-01-10", best: "2026-01-20", latest: "2026-02-20" },
    day: "2026-01-01",
    vesselMl: null,
    fillMl: null,
    looseMl: null,
  } satisfies JarFacts,
  strained: { oilIn: mg(600_000), herbIn: mg(50_000), value: micros(9_000_000), secondBack: null, sediment: mg(0), expected: mg(500_000) },
  stock: { onHand: 100, coming: 0, reorderBy: "use", reorderAt: null, perDay: 10 },
  offer,
  openingLine,
  begun: { materials: false, containers: false, opening: false, recipe: false, batch: false, price: false },
  again: new Map([[1, { value: micros(2), per: 1 }]]),
  receipt: { postage: micros(0), tax: micros(0), discount: micros(0), spreadBy: "value", rate: 1_000_000 },
};
