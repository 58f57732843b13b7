/** A recipe as its sheet says it. */
import { weightText } from "#core/measure/read";
import type { RecipeType } from "#core/recipe/types";
import type { ForWhom, UsedOn } from "#core/scent/limits";
import type { WrittenRecipe } from "#db/recipe/read";

export const BLANK_LINE = { material: "", entered: "", form: "" };
export const BLANK_PACK = { material: "", pieces: "1" };
export const BLANK_SIZE = { id: "", container: "", fill: "", minutes: "2", away: "", packaging: [BLANK_PACK] };

const NEW = {
  name: "",
  code: "",
  type: "balm" as RecipeType,
  makes: "",
  loss: "2",
  overrun: "",
  keepsMonths: "12",
  batchMinutes: "45",
  method: "",
  note: "",
  usedOn: "" as UsedOn | "",
  forWhom: "anyone" as ForWhom,
  answers: [] as { key: string; word: string }[],
  lines: [BLANK_LINE, BLANK_LINE, BLANK_LINE],
  sizes: [BLANK_SIZE],
};
export type RecipeTexts = typeof NEW;

/** Every material that is on the sheet, by the name it was typed with. */
export const namesOn = (t: RecipeTexts): string[] => [
  ...t.lines.map((l) => l.material),
  ...t.sizes.flatMap((s) => [s.container, ...s.packaging.map((p) => p.material)]),
];

/** A recipe begun as a copy of another: its name and lot letters are its own, and so are its sizes. */
export function copyTexts(like: WrittenRecipe, names: ReadonlyMap<number, string>): RecipeTexts {
  const texts = recipeTexts(like, names);
  return { ...texts, name: "", code: "", sizes: texts.sizes.filter((s) => s.away === "").map((s) => ({ ...s, id: "" })) };
}

/** @param names of materials by id @example recipeTexts(null, new Map()).loss // "2" */
export function recipeTexts(w: WrittenRecipe | null, names: ReadonlyMap<number, string>, note = ""): RecipeTexts {
  if (!w) return NEW;
  const { recipe: r } = w;
  const name = (id: number | null): string => (id === null ? "" : (names.get(id) ?? ""));
  return {
    name: r.name,
    code: r.code,
    type: r.type,
    makes: weightText(r.makes),
    loss: String(r.lossBp / 100),
    overrun: r.overrunBp > 0 ? String(r.overrunBp / 100) : "",
    keepsMonths: String(r.keepsMonths),
    batchMinutes: String(r.batchMinutes),
    method: r.method,
    note,
    usedOn: r.usedOn,
    forWhom: r.forWhom,
    answers: Object.entries(r.answers).map(([key, word]) => ({ key, word })),
    lines: w.lines.map((l) => ({ material: name(l.materialId), entered: l.entered, form: l.form })),
    sizes: w.sizes.map((s) => {
      // The container is a piece of packaging that has its own field.
      const own = s.packaging.findIndex((p) => p.materialId === s.containerId && p.pieces === 1);
      const others = s.packaging.filter((_, i) => i !== own).map((p) => ({ material: name(p.materialId), pieces: String(p.pieces) }));
      return {
        id: String(s.id),
        container: own >= 0 ? name(s.containerId) : "",
        fill: s.fillText,
        minutes: String(s.unitMinutesHundredths / 100),
        away: s.retired ? "yes" : "",
        packaging: others.length > 0 ? others : [BLANK_PACK],
      };
    }),
  };
}
