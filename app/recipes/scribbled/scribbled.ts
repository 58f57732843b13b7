/** Reads a scribbled recipe against the shelf, line by line. Nothing is kept of it. */
import { kind } from "#core/material/kinds";
import { MOST_LINES, readScribbled, type Scribbled } from "#core/recipe/scribbled/read";
import { listMaterials } from "#db/shelf/materials";
import { data } from "react-router";
import { object } from "yup";
import { db } from "../../db.server.ts";
import { words } from "../../forms/fields.ts";
import { readSheet } from "../../forms/sheet.server.ts";
import type { Route } from "./+types/scribbled";

/** What was read, and how many lines were too many to be. */
export interface ReadThrough {
  lines: Scribbled[];
  left: number;
}

const schema = object({ text: words("a recipe", 60_000) });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { text } = sheet.value;
  const shelf = (await listMaterials(db())).filter((m) => !m.retired && kind(m.kind).group === "ingredient");
  const lines = readScribbled(
    text,
    shelf.map((m) => ({ ...m, also: `${m.inci} ${m.botanical}` })),
  );
  return data<ReadThrough>({ lines, left: Math.max(0, text.split("\n").length - MOST_LINES) });
}
