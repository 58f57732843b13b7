/** Column kinds used by every station: exact money and amounts. */
import type { Micros, Mg } from "#core/measure/exact";
import { bigint } from "drizzle-orm/pg-core";

/** Whole micros. */
export const microsColumn = () => bigint({ mode: "number" }).$type<Micros>();
/** Whole milligrams. */
export const mgColumn = () => bigint({ mode: "number" }).$type<Mg>();
/** Milligrams or pieces, as the material is measured. */
export const baseColumn = () => bigint({ mode: "number" });
