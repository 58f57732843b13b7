/** A list of materials and containers by themselves, without how much there is: each an entry of the library, or a new one of some kind. */
import { plain } from "../find.ts";
import { KIND_IDS, KINDS, type KindId } from "../material/kinds.ts";
import { libraryByName, libraryEntry } from "../material/library.ts";
import { cellsOf, type Reading } from "./cells.ts";
import type { ListRead, ListRow, ListSpec } from "./list.ts";
import { unknownNames } from "./products.ts";

export type MaterialField = "name" | "kind" | "holds" | "keeps" | "allergen" | "note";

export const MATERIALS: ListSpec<MaterialField> = {
  fields: {
    name: "Name",
    kind: "Kind",
    holds: "Holds, mL",
    keeps: "Keeps, months",
    allergen: "Allergen",
    note: "Noted",
  },
  words: {
    kind: ["kind", "type", "category", "group"],
    holds: ["holds", "capacity", "volume", "ml"],
    keeps: ["keeps", "shelf life", "months"],
    allergen: ["allergen", "allerg"],
    note: ["note", "remark", "comment"],
    name: ["name", "material", "ingredient", "container", "item", "article", "what"],
  },
  first: "name",
  needed: ["name"],
  // A name alone is a material, and a kind left out is one that the library may know.
  group: null,
  carried: [],
  figures: ["holds", "keeps"],
  days: {},
};

export interface MaterialLine {
  row: number;
  name: string;
  /** The entry of the library it is; null for one that is described by its kind. */
  libraryKey: string | null;
  kind: KindId;
  /** To the brim; of containers. */
  brimMl: number | null;
  keepsSealed: number | null;
  allergen: string;
  note: string;
}

/** Other words for kinds; common practice, no source. */
const ALSO: readonly (readonly [RegExp, KindId])[] = [
  [/essential|\beos?\b/, "essentialOil"],
  [/infused|macerat/, "infusedOil"],
  [/fragrance|perfume/, "fragrance"],
  [/\bhard butter|cocoa/, "hardButter"],
  [/butter/, "softButter"],
  [/oil/, "oil"],
  [/wax/, "wax"],
  [/herb|flower|botanical|plant/, "herb"],
  [/powder|clay|starch/, "powder"],
  [/colou?r|pigment|mica/, "colour"],
  [/antioxidant|vitamin e/, "antioxidant"],
  [/lid|cap\b|caps\b|closure/, "closure"],
  [/label/, "label"],
  [/mould|mold/, "mould"],
  [/container|\btins?\b|\bjars?\b|\btubes?\b|\bbottles?\b|\bpots?\b/, "container"],
];

/** The kind a word says; its own label before other words for it. @example kindIn("Carrier oils") // "oil" */
export function kindIn(text: string): KindId | null {
  const said = plain(text).trim();
  if (said === "") return null;
  const own = KIND_IDS.find((k) => plain(KINDS[k].label) === said || plain(KINDS[k].plural) === said);
  return own ?? ALSO.find(([words]) => words.test(said))?.[1] ?? null;
}

const MOST_ML = 5000;
const MOST_MONTHS = 240;

/**
 * Every row as a material to put on the shelf.
 * @param known names of materials there are, in small letters
 * @param matches answers by name: `library:jojoba`, `kind:oil`, or a material of the shelf
 * @example readMaterials([], new Set(), {}, reading).fresh // []
 */
export function readMaterials(
  rows: readonly ListRow<MaterialField>[],
  known: ReadonlySet<string>,
  matches: Readonly<Partial<Record<string, string>>>,
  reading: Reading,
): ListRead<MaterialLine> {
  const out: ListRead<MaterialLine> = { fresh: [], there: [], problems: [], unknown: [], remarks: [] };
  const unknown = unknownNames();
  const seen = new Map<string, number>();
  for (const row of rows) {
    const cells = cellsOf(row, reading, MATERIALS.fields);
    const name = cells.text("name", 80);
    const said = matches[name.toLowerCase()] ?? "";
    const [, how, what = ""] = /^(kind|library):(.+)$/.exec(said) ?? [];
    const entry = libraryEntry(how === "library" ? what : how === undefined && said === "" ? (libraryByName(name)?.key ?? null) : null);
    const kind = entry?.kind ?? (how === "kind" ? KIND_IDS.find((k) => k === what) : undefined) ?? kindIn(row.text("kind"));
    const called = (entry?.name ?? name).toLowerCase();
    if (name === "") cells.fail("Nothing is named.");
    else if (known.has(called) || (said !== "" && known.has(said.toLowerCase()))) {
      out.there.push({ row: row.at, name });
      continue;
    } else if (kind === null) {
      unknown.add(name);
      cells.fail(`It doesn't say what “${name}” is.`);
    } else if (seen.has(called)) cells.fail(`“${name}” is in row ${seen.get(called)} already.`);
    const line = {
      brimMl: cells.number("holds", MOST_ML),
      keepsSealed: cells.whole("keeps", MOST_MONTHS),
      allergen: cells.text("allergen", 200),
      note: cells.text("note", 1000),
    };
    if (line.brimMl !== null && kind !== null && kind !== "container" && kind !== "mould")
      cells.fail(`Only containers and moulds hold so many mL.`);
    out.problems.push(...cells.problems);
    if (cells.problems.length > 0 || kind === null) continue;
    seen.set(called, row.at);
    out.fresh.push({ row: row.at, name: entry?.name ?? name, libraryKey: entry?.key ?? null, kind, ...line });
  }
  return { ...out, unknown: unknown.all() };
}
