/** Tells an object from any other value that was read. */

/** @example isObject({ a: 1 }) // true */
/** @example isObject([1]) // false */
export const isObject = (v: unknown): v is Record<string, unknown> => typeof v === "object" && v !== null && !Array.isArray(v);

/**
 * Whether an object has this key itself; inherited ones such as `toString` don't count.
 * @example isKeyOf({ g: 1 }, "g") // true
 * @example isKeyOf({ g: 1 }, "toString") // false
 */
export const isKeyOf = <T extends object>(of: T, key: string): key is Extract<keyof T, string> => Object.hasOwn(of, key);
