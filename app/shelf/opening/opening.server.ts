/** Loader and action of the opening stock sheet, for its two pages: on the shelf, and among the first steps. */
import { readOpening, type OpeningTexts } from "#core/stock/openingSheet";
import { today } from "#db/clock";
import { listMaterials, materialsWithoutLots } from "#db/shelf/materials";
import { openingStock } from "#db/shelf/counting/opening";
import type { NewMaterial } from "#db/shelf/receipts/receive";
import { array, object } from "yup";
import { db } from "../../server/workshop.server.ts";
import { noteText } from "../../forms/fields.ts";
import { runAct, readSheet, refuseSheet } from "../../forms/sheet.server.ts";
import { BLANK, finding, type Known } from "./openingTexts.ts";

/** More names than this are not put on the sheet by themselves. */
const MOST_PREPARED = 30;

const onShelf = async (): Promise<Known[]> =>
  (await listMaterials(db()))
    .filter((m) => !m.retired)
    .map(({ id, name, kind, densities, dropsPerMl, pieceMg }) => ({ id, name, kind, densities, dropsPerMl, pieceMg }));

/** What the sheet of opening stock opens with; also the first steps' own. */
export async function openingLoader() {
  const [materials, without] = await Promise.all([onShelf(), materialsWithoutLots(db(), MOST_PREPARED)]);
  return { materials, prepared: without.map((m) => m.name), token: crypto.randomUUID() };
}

const texts = object(
  Object.fromEntries(Object.keys(BLANK).map((k) => [k, noteText(120)])) as Record<keyof OpeningTexts, ReturnType<typeof noteText>>,
);
const schema = object({ lines: array().of(texts).required() });

export async function openingAction(request: Request, to?: string) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { lines, problems } = readOpening(sheet.value.lines, finding(await onShelf(), sheet.meant("material")), today());
  if (problems.length > 0) return refuseSheet(problems);
  const add: NewMaterial[] = [];
  const placeOf = new Map<string, number>();
  const numberOf = (m: { id?: number; key?: string }): number => {
    if (m.id !== undefined) return m.id;
    const key = m.key!;
    if (!placeOf.has(key)) {
      add.push({ libraryKey: key });
      placeOf.set(key, -add.length);
    }
    return placeOf.get(key)!;
  };
  const read = lines.flatMap((l) => (l ? [{ ...l, materialId: numberOf(l.material) }] : []));
  if (read.length === 0) return refuseSheet([{ field: "", say: "Say of at least one how much there is." }]);
  return runAct(
    () => openingStock(db(), { add, lines: read.map(({ material: _m, ...l }) => l) }, sheet.doing),
    to === undefined ? {} : { path: () => to },
  );
}
