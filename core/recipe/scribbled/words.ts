/** What of a scribbled line is the material, and in what state it was measured. */
import type { Form } from "../../measure/mass.ts";

const STATES: readonly (readonly [RegExp, Form])[] = [
  [/\b(?:pellets?|pastilles?|beads|pearls|prills)\b/i, "pellets"],
  [/\b(?:grated|shaved|shavings|shredded|flaked|flakes)\b/i, "grated"],
  [/\b(?:chopped|diced|cubed|chunks|chips|wafers|buttons)\b/i, "chopped"],
  [/\b(?:melted|liquefied)\b/i, "melted"],
  [/\b(?:block|solid|bar)\b/i, "block"],
];

export interface Described {
  /** What is left to be found among names. */
  name: string;
  /** The state it was measured in, where it says so. */
  form: Form | null;
  /** Whether "melted" comes after the name: melted before it was measured, or after? */
  meltedAfter: boolean;
  packed: boolean;
}

const REMARKS =
  /\b(?:organic|packed|loosely|tightly|level|heaped|heaping|scant|generous|sifted|softened|good|quality|your favou?rite|of choice|by weight|optional|divided)\b/gi;

/**
 * Takes a description apart. What is in brackets is a remark unless it says a state.
 * @example describe("grated beeswax, packed").form // "grated"
 * @example describe("coconut oil, melted").meltedAfter // true
 */
export function describe(text: string): Described {
  const comma = text.search(/[,(]/);
  const after = comma >= 0 ? text.slice(comma) : "";
  const state = STATES.find(([words]) => words.test(text));
  const packed = /\bpacked\b/i.test(text) && !/\bloosely\b/i.test(text);
  const meltedAfter = state?.[1] === "melted" && /\bmelted\b/i.test(after);
  let name = text;
  for (const [words] of STATES) name = name.replace(words, " ");
  name = name
    .replace(/\([^)]*\)/g, " ")
    .replace(REMARKS, " ")
    .replace(/^[\s,;:.–-]+|[\s,;:.–-]+$/g, "")
    .replace(/^of\s+/i, "")
    .replace(/\s+/g, " ")
    .replace(/\s+,/g, ",")
    .replace(/(?:,\s*)+/g, ", ")
    .trim();
  return { name, form: state?.[1] ?? null, meltedAfter, packed };
}

/** Verbs a step begins with. */
const DOES =
  /^(?:then\s+|once\s+|when\s+|after\s+|next,?\s+|finally,?\s+|gently\s+|slowly\s+|carefully\s+|now\s+|let\b|allow\b|melt|heat|warm|stir|pour|add|mix|whip|beat|whisk|blend|combine|cool|chill|remove|take|place|put|set|wait|strain|test|cap|label|store|weigh|measure|grate|cut|chop|wipe|clean|use|keep|fill|bring|turn|leave|transfer|fold|scrape|pop|freeze|refrigerate|enjoy|apply|rub|do not|don't|never|repeat|double boiler|sterilise|sterilize|prepare|make sure|note|tip|reheat|re-?melt)\b/i;

export const isStep = (text: string): boolean => DOES.test(text);

/** A heading above steps, or above ingredients. */
export const headingOf = (text: string): "steps" | "lines" | "other" | null => {
  const bare = text
    .replace(/^#+\s*/, "")
    .replace(/\*\*/g, "")
    .trim();
  if (/^(?:method|directions?|instructions?|steps?|how to(?: make)?.*|to make|procedure|making it)\s*:?$/i.test(bare)) return "steps";
  if (/^(?:ingredients?|you(?:'|’)?ll need|you will need|what you need|materials|supplies)\s*:?$/i.test(bare)) return "lines";
  return /:$/.test(bare) || /^#/.test(text) || /^(?:yields?|makes|serves|recipe|notes?|tips?|variations?|equipment)\b/i.test(bare)
    ? "other"
    : null;
};
