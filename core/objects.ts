/** Tells an object from any other value that was read. */

/** @example isObject({ a: 1 }) // true */
/** @example isObject([1]) // false */
export const isObject = (v: unknown): v is Record<string, unknown> => typeof v === "object" && v !== null && !Array.isArray(v);

/**
 * Whether a record has a key of its own: what every object has besides, such as `toString`, is none.
 * @example isKeyOf({ g: 1 }, "g") // true
 * @example isKeyOf({ g: 1 }, "toString") // false
 */
export const isKeyOf = <T extends object>(of: T, key: string): key is Extract<keyof T, string> => Object.hasOwn(of, key);
