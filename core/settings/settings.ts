/**
 * What a workshop chooses for itself, and what a new one starts from.
 */
import type { NetRule } from "../batch/finishing/netWeight.ts";
import type { HerbValue } from "../infusion/drying.ts";
import { micros, type Micros } from "../measure/exact.ts";
import type { NumberHabit } from "../measure/habit.ts";
import type { PricingRules } from "../pricing/pricingMethods.ts";
import type { Scale } from "../recipe/scale.ts";
import type { DateStyle } from "../typedDay.ts";
import type { CostingMethod } from "../stock/costingMethods.ts";

export const PAPER_SIZES = { a4: "A4", letter: "Letter" } as const;
export type PaperSize = keyof typeof PAPER_SIZES;
export const PAPER_SIZE_IDS = Object.keys(PAPER_SIZES) as PaperSize[];

export interface Settings {
  workshop: string;
  /** ISO 4217 code. */
  currency: string;
  /** Which costing method every single figure uses. */
  school: CostingMethod;
  hourly: Micros;
  overheadHourly: Micros;
  /** Lot numbers of finished batches, and of what is received. */
  batchScheme: string;
  receiptScheme: string;
  /** Numbers of jars, and of the bottles strained from them. */
  jarScheme: string;
  /** What a harvest of one's own is worth unless said otherwise. */
  herbValue: HerbValue;
  /** From ordering to delivery, and how long an order should last. */
  leadDays: number;
  coverDays: number;
  /** How days are written and typed. */
  dates: DateStyle;
  /** How numbers are typed: which of two is meant where one could be either. */
  numbers: NumberHabit;
  /** What the scale reads in, and to. */
  scale: Scale;
  /** The size of a sheet of paper. */
  paper: PaperSize;
  /** By whose rule net weights are judged. */
  netRule: NetRule;
  /** Whether what is poured is on hold until it was checked. */
  checkFirst: boolean;
  /** Who does the work, for the book of acts. */
  maker: string;
  /** How customers reach the workshop: an address, a telephone, an e-mail, as it is on what they are given. Several lines; may be empty. */
  reachUs: string;
  cardFeeBp: number;
  pricing: PricingRules;
  /** The first steps: those that were done or skipped, and whether the strip that leads on is put away. */
  firstSteps: { passed: string[]; away: boolean };
}

export const STARTING_SETTINGS: Settings = {
  workshop: "My workshop",
  currency: "EUR",
  school: "lot",
  hourly: micros(16_000_000),
  overheadHourly: micros(2_500_000),
  batchScheme: "{P}{YY}{MM}{DD}-{N}",
  receiptScheme: "R{YY}{DDD}-{NN}",
  jarScheme: "J{YY}{DDD}-{N}",
  herbValue: "hours",
  leadDays: 14,
  coverDays: 60,
  dates: "dmy",
  numbers: "asked",
  scale: { unit: "g", step: 100 },
  paper: "a4",
  netRule: "eu",
  checkFirst: false,
  maker: "Maker",
  reachUs: "",
  cardFeeBp: 175,
  firstSteps: { passed: [], away: false },
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

/** Whether `v` has what it has of `example` as `example` has it; what one of them lacks says nothing. */
const like = (v: unknown, example: unknown): boolean =>
  typeof v === "object" && v !== null && typeof example === "object" && example !== null
    ? Object.entries(v).every(([key, part]) => !(key in example) || like(part, (example as Record<string, unknown>)[key]))
    : typeof v === typeof example && v !== null;

/** Choices as they are stored; those that came later may be missing. */
export const isSettings = (v: unknown): v is Partial<Settings> => typeof v === "object" && like(v, STARTING_SETTINGS);
