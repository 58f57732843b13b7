/** Every page before there is anything on it, and every page of something that isn't there. */
import type { OpenDb } from "#db/client";
import { serveOnly } from "#app/server/workshop.server.ts";
import { freshDb } from "#test/db/fresh";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { loader as bench } from "#app/bench/bench.tsx";
import { loader as batch } from "#app/bench/batch.tsx";
import { loader as actsCsv } from "#app/book/actsCsv.ts";
import { loader as movementsCsv } from "#app/book/movementsCsv.ts";
import { loader as setOut } from "#app/bench/settingOut/setOut.tsx";
import { loader as cabinet } from "#app/cabinet/cabinet.tsx";
import { loader as gifts } from "#app/gifts/gifts.tsx";
import { loader as order } from "#app/gifts/order.tsx";
import { loader as fill } from "#app/jars/fill.tsx";
import { loader as jar } from "#app/jars/jar.tsx";
import { loader as jars } from "#app/jars/jars.tsx";
import { loader as label } from "#app/jars/label.tsx";
import { loader as lots } from "#app/lots/lots.tsx";
import { loader as markets } from "#app/markets/markets.tsx";
import { loader as day } from "#app/markets/day.tsx";
import { loader as ladder } from "#app/prices/ladder.tsx";
import { loader as prices } from "#app/prices/prices.tsx";
import { loader as price } from "#app/prices/product.tsx";
import { loader as recipes } from "#app/recipes/recipes.tsx";
import { loader as settings } from "#app/settings/settings.tsx";
import { loader as buying } from "#app/shelf/buying/buying.tsx";
import { loader as correct } from "#app/shelf/receipts/correct.tsx";
import { loader as facts } from "#app/shelf/materials/facts.tsx";
import { loader as harvest } from "#app/shelf/harvests/harvest.tsx";
import { loader as harvests } from "#app/shelf/harvests/harvests.tsx";
import { loader as history } from "#app/shelf/materials/history.tsx";
import { loader as library } from "#app/shelf/materials/library.tsx";
import { loader as material } from "#app/shelf/materials/material.tsx";
import { loader as receipt } from "#app/shelf/receipts/receipt.tsx";
import { loader as receipts } from "#app/shelf/receipts/receipts.tsx";
import { loader as receive } from "#app/shelf/receipts/receive.tsx";
import { loader as shelf } from "#app/shelf/shelf.tsx";
import { loader as shopping } from "#app/shelf/buying/shopping.tsx";
import { loader as shoppingCsv } from "#app/shelf/buying/shoppingCsv.ts";
import { loader as stockTake } from "#app/shelf/counting/stockTake.tsx";
import { loader as worth } from "#app/shelf/worthByCostingMethod.ts";
import { loader as begin } from "#app/begin/begin.tsx";
import { loader as opening } from "#app/shelf/opening/opening.tsx";
import { loader as today } from "#app/today/today.tsx";
import { loader as people } from "#app/people/people.tsx";
import { loader as contact } from "#app/people/contact.tsx";
import { loader as file } from "#app/files/file.ts";
import { loader as workroom } from "#app/shell/workroom.tsx";

let db: OpenDb;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ db, drop } = await freshDb());
  process.env.ZELBIN_TODAY = "2026-11-25";
  serveOnly({ db });
});
afterAll(() => drop());

type Loader = (args: { request: Request; params: Record<string, string>; context: object }) => unknown;
const open = (loader: unknown, path = "/", params: Record<string, string> = {}): Promise<unknown> =>
  Promise.resolve((loader as Loader)({ request: new Request(`http://127.0.0.1${path}`), params, context: {} }));
/** The status a page of something missing answers with. */
const status = async (loader: unknown, id: string): Promise<number> => {
  try {
    await open(loader, "/", { id });
  } catch (e) {
    if (e instanceof Response) return e.status;
    throw e;
  }
  return 200;
};

describe("an empty workshop", () => {
  it.each<[string, unknown, unknown]>([
    ["today", today, { waiting: [], fixed: [], drafts: [] }],
    ["shelf", shelf, { boards: [], whole: true, materials: [] }],
    ["receive", receive, { stuff: [], supplier: "", lines: [] }],
    ["receipts", receipts, { rows: [], more: false }],
    ["suppliers", people, { kind: "supplier", all: [] }],
    ["shopping", shopping, { groups: [] }],
    ["stock-take", stockTake, { rows: [], totals: [], whole: true }],
    ["harvests", harvests, []],
    ["opening stock", opening, { materials: [], prepared: [] }],
    ["first steps", begin, { away: false }],
    ["library", library, { have: [] }],
    ["worth", worth, { ingredient: { lot: 0, average: 0, again: 0 }, packaging: { lot: 0, average: 0, again: 0 } }],
    ["jars", jars, { steeping: [], rows: [] }],
    ["fill a jar", fill, { stuff: [], bare: true, start: { name: "", method: "shelf", rows: [] } }],
    ["workroom", workroom, { data: { counts: {}, heated: [], done: null } }],
  ])("%s opens and has nothing", async (_, loader, want) => expect(await open(loader)).toMatchObject(want as object));
  it.each<[string, unknown]>([
    ["recipes", recipes],
    ["bench", bench],
    ["set out", setOut],
    ["cabinet", cabinet],
    ["prices", prices],
    ["the ladder of prices", ladder],
    ["markets", markets],
    ["gifts", gifts],
    ["lots", lots],
    ["settings", settings],
  ])("%s opens", async (_, loader) => expect(await open(loader)).toBeTruthy());
  it("the shopping list as CSV has its heading and nothing else", async () => {
    const csv = await ((await open(shoppingCsv)) as Response).text();
    expect(csv.split("\r\n")).toEqual(["supplier,material,wanted,unit,packs,each holds,price of all (EUR)", ""]);
  });
  it.each<[string, unknown, string]>([
    ["the book", actsCsv, "act,day,written,who,kind,what,takes back act,taken back by act"],
    ["movements", movementsCsv, "movement,act,day,"],
  ])("%s as CSV is bytes that begin with its heading", async (_, loader, heading) =>
    expect(await ((await open(loader)) as Response).text()).toMatch(heading),
  );
});

describe("what isn't there is not found, never a crash", () => {
  it.each<[string, unknown]>([
    ["material", material],
    ["facts", facts],
    ["buying", buying],
    ["history", history],
    ["receipt", receipt],
    ["correct", correct],
    ["harvest", harvest],
    ["jar", jar],
    ["label", label],
    ["batch", batch],
    ["price", price],
    ["market day", day],
    ["order", order],
    ["supplier", contact],
    ["file", file],
  ])("%s", async (_, loader) => {
    for (const id of ["1", "0", "-1", "abc", "99999999999", "1e3", "1.5", "'"]) expect(await status(loader, id), id).toBe(404);
  });
});

describe("searching an empty shelf", () => {
  it.each(["?find=oil", "?find=%25", "?board=oil", "?board=nonsense", "?find=%27%3B--", "?page=-1"])("%s finds nothing", async (query) =>
    expect(await open(shelf, `/shelf${query}`)).toMatchObject({ materials: [] }),
  );
});
