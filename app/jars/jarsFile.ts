/** Jars as a file. */
import type { FileColumn } from "#core/lists/fileColumns";
import { METHODS } from "#core/infusion/methods";
import { JAR_STATES, jarState } from "#core/infusion/tend";
import type { Day } from "#core/when";
import type { WallJar } from "#db/jars/read";

/** What a jar's method is called; one of one's own by its own name. */
export const methodOf = (j: WallJar): string =>
  j.jar.method === "own" && j.jar.methodName ? j.jar.methodName : METHODS[j.jar.method].label;

export const jarsFile = (today: Day): FileColumn<WallJar>[] => [
  { head: "number", of: (j) => j.jar.number },
  { head: "jar", of: (j) => j.jar.name },
  { head: "method", of: methodOf },
  { head: "herbs", of: (j) => j.contents },
  { head: "oils", of: (j) => j.carriers },
  { head: "filled", of: (j) => j.jar.day },
  { head: "best from", of: (j) => j.jar.best },
  {
    head: "state",
    of: (j) => (j.jar.spoiledActId !== null ? "spoiled" : j.jar.strainedActId !== null ? "strained" : JAR_STATES[jarState(j.jar, today)]),
  },
  { head: "herb in", of: (j) => j.herb, as: "grams" },
  { head: "oil in", of: (j) => j.oil, as: "grams" },
  { head: "oil expected back", of: (j) => j.jar.expected, as: "grams" },
  { head: "oil back", of: (j) => (j.jar.strainedActId === null ? null : j.jar.back), as: "grams" },
];
