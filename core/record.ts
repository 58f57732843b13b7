/** Telling a thing with parts of its own from anything else that was read. */

/** @example isRecord({ a: 1 }) // true */
/** @example isRecord([1]) // false */
export const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === "object" && v !== null && !Array.isArray(v);
