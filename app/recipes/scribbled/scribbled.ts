/** Reads a scribbled recipe against the shelf, line by line. Nothing of it is saved. */
import type { MaterialFacts } from "#core/material/facts";
import { kind } from "#core/material/kinds";
import { LIBRARY } from "#core/material/library";
import { MOST_LINES, readScribbled, type Scribbled } from "#core/recipe/scribbled/read";
import { listMaterials } from "#db/shelf/materials";
import { data } from "react-router";
import { object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { requiredText } from "../../forms/fields.ts";
import { readSheet } from "../../forms/sheet.server.ts";
import type { Route } from "./+types/scribbled";

/** What was read, and how many lines were too many to be. */
export interface ReadThrough {
  lines: Scribbled[];
  left: number;
  /** Of each material a line is or may be: what weighing it takes to know, and its key where only the library has it. */
  materials: Record<string, MaterialFacts & { library?: string | undefined }>;
}

const factsOf = (m: MaterialFacts & { library?: string }) => ({
  name: m.name,
  kind: m.kind,
  densities: m.densities,
  dropsPerMl: m.dropsPerMl,
  pieceMg: m.pieceMg,
  library: m.library,
});

const schema = object({ text: requiredText("a recipe", 60_000) });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { text } = sheet.value;
  const all = await listMaterials(db());
  const shelf = all.filter((m) => !m.retired && kind(m.kind).group === "ingredient");
  const there = new Set(all.flatMap((m) => [m.libraryKey ?? "", m.name.toLowerCase()]));
  const library = LIBRARY.filter((e) => kind(e.kind).group === "ingredient" && !there.has(e.key) && !there.has(e.name.toLowerCase()));
  const onShelf = shelf.map((m) => ({ ...m, also: `${m.inci} ${m.botanical}` }));
  const inLibrary = library.map((e) => ({ ...e, pieceMg: null, also: e.inci, library: e.key }));
  const lines = readScribbled(text, onShelf, inLibrary);
  const meant = new Set(
    lines.flatMap((l) => (l.as === "line" ? [l.line.material, ...l.asks.flatMap((a) => a.choices.map((c) => c.value))] : [])),
  );
  const facts = [...inLibrary, ...onShelf].filter((m) => meant.has(m.name));
  return data<ReadThrough>({
    lines,
    left: Math.max(0, text.split("\n").length - MOST_LINES),
    materials: Object.fromEntries(facts.map((m) => [m.name, factsOf(m)])),
  });
}
