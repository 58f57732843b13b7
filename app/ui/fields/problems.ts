/** Finds errors by path in what the form library reports, which is nested as its fields are. */

/** The paths of the fields that have a problem. @example pathsOf({ lines: [{ price: { message: "Enter a price." } }] }) // ["lines.0.price"] */
export function pathsOf(errors: object, at = ""): string[] {
  return Object.entries(errors).flatMap(([key, e]: [string, unknown]) => {
    if (typeof e !== "object" || e === null || key === "ref") return [];
    const path = at === "" ? key : `${at}.${key}`;
    return "message" in e && typeof e.message === "string" ? [path] : pathsOf(e, path);
  });
}

/** The message of a field by its path. @example problemAt({ lines: [{ price: { message: "Enter a price." } }] }, "lines.0.price") // "Enter a price." */
export function problemAt(errors: object, path: string): string | undefined {
  const found = path.split(".").reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], errors);
  return (found as { message?: string } | undefined)?.message;
}
