/**
 * What a workshop chooses for itself, and what a new one starts from.
 */
import { micros, mg, type Mg, type Micros } from "./measure/exact.ts";
import type { PricingRules } from "./pricing/schools.ts";
import type { School } from "./stock/schools.ts";

export interface Settings {
  workshop: string;
  /** ISO 4217 code. */
  currency: string;
  /** Which costing school every single figure uses. */
  school: School;
  hourly: Micros;
  overheadHourly: Micros;
  /** Lot numbers of finished batches, and of what is received. */
  batchScheme: string;
  receiptScheme: string;
  /** What the scale reads to. */
  scaleStep: Mg;
  cardFeeBp: number;
  pricing: PricingRules;
}

export const STARTING_SETTINGS: Settings = {
  workshop: "My workshop",
  currency: "EUR",
  school: "lot",
  hourly: micros(16_000_000),
  overheadHourly: micros(2_500_000),
  batchScheme: "{P}{YY}{MM}{DD}-{N}",
  receiptScheme: "R{YY}{DDD}-{NN}",
  scaleStep: mg(100),
  cardFeeBp: 175,
  pricing: {
    multipleHundredths: 350,
    marginBp: 4000,
    channels: {
      market: { shareBp: 10_000, feeBp: 120, point: "half" },
      online: { shareBp: 10_000, feeBp: 850, point: "ninety" },
      wholesale: { shareBp: 5500, feeBp: 0, point: "tenth" },
      gift: { shareBp: 10_500, feeBp: 175, point: "half" },
    },
  },
};
