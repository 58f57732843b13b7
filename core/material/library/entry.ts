/**
 * Entries of the starter library, written as short rows. Every figure is from memory unless its row names a published table;
 * even then the table's range is quoted from memory, and the maker's own figure goes before it.
 */
import type { Form } from "../../measure/mass.ts";
import type { CautionId } from "../cautions.ts";
import type { Kept, Refined, Vegan } from "../facts.ts";
import type { KindId } from "../kinds.ts";
import type { ScentNote, SkinFeel, Smell } from "../senses.ts";
import { sensesOf } from "./senses.ts";

export const SOURCES = {
  memory: "from memory",
  codex210: "CXS 210-1999 (Codex Alimentarius, named vegetable oils), Table 2, relative density; range quoted from memory",
  codex33: "CXS 33-1981 (Codex Alimentarius, olive oils), relative density; range quoted from memory",
} as const;
export type SourceId = keyof typeof SOURCES;

export interface LibraryEntry {
  key: string;
  name: string;
  kind: KindId;
  inci: string;
  botanical: string;
  /** mg/mL by form. */
  densities: Partial<Record<Form, number>>;
  densitySource: SourceId;
  /** °C. */
  melts: readonly [from: number, to: number] | null;
  /** Months. */
  keepsSealed: number | null;
  keepsOpened: number | null;
  dropsPerMl: number | null;
  allergen: string;
  cautions: readonly CautionId[];
  vegan: Vegan;
  refined: Refined;
  kept: Kept;
  scentNote: ScentNote;
  feel: SkinFeel;
  smell: Smell;
  /** Containers: millilitres to the brim, grams empty, what they are made of, and the entry of the lid that fits. */
  brimMl: number | null;
  emptyG: number | null;
  madeOf: string;
  lid: string;
}

type Rest = Partial<Omit<LibraryEntry, "key" | "name" | "kind" | "inci">>;

/** @example entry("castor", "Castor oil", "oil", "Ricinus Communis Seed Oil", { densities: { liquid: 960 } }).vegan // "yes" */
export const entry = (key: string, name: string, kind: KindId, inci: string, rest: Rest = {}): LibraryEntry => ({
  key,
  name,
  kind,
  inci,
  botanical: "",
  densities: {},
  densitySource: "memory",
  melts: null,
  keepsSealed: null,
  keepsOpened: null,
  dropsPerMl: null,
  allergen: "",
  cautions: [],
  vegan: "yes",
  refined: "",
  kept: "",
  ...sensesOf(key),
  brimMl: null,
  emptyG: null,
  madeOf: "",
  lid: "",
  ...rest,
});
