/**
 * History stands still. Every settled sheet of the demo workshop (records of batches, market days, orders, lots, receipts, jars and
 * harvests, with what prints of them) is drawn as a browser shows it; settings, recipes, prices, names and materials are changed at random;
 * and drawn again, each reads word for word as it did.
 *
 * Left out of the changes, since they are meant to be seen: the workshop's own name, what is known of a material's risks, and how long it
 * keeps, which lots without a printed date follow.
 */
import { micros } from "#core/measure/exact";
import { Refused } from "#core/refused";
import { COSTING_METHOD_IDS } from "#core/stock/costingMethods";
import { choosePrices } from "#db/prices/prices";
import { readWhole } from "#db/recipe/read";
import { saveRecipe } from "#db/recipe/save";
import { batch, giftOrder, harvest, jar, lot, marketDay, material, product, purchase, recipe } from "#db/schema";
import { readSettings, saveSettings } from "#db/settings/settings";
import { retireMaterial, saveMaterial } from "#db/shelf/keepMaterial";
import { isNotNull } from "drizzle-orm";
import fc from "fast-check";
import { createElement, type ComponentType } from "react";
import { renderToString } from "react-dom/server";
import { createRoutesStub } from "react-router";
import { expect, it } from "vitest";
import * as batchPage from "#app/bench/batch.tsx";
import * as orderPage from "#app/gifts/order.tsx";
import * as labelPage from "#app/jars/label.tsx";
import * as jarPage from "#app/jars/jar.tsx";
import * as lotPage from "#app/lots/lot.tsx";
import * as dayPage from "#app/markets/day.tsx";
import * as harvestPage from "#app/shelf/harvests/harvest.tsx";
import * as receiptPage from "#app/shelf/receipts/receipt.tsx";
import { WorkshopContext } from "#app/ui/workshop.ts";
import { DAY, db, theDemo } from "./demo.ts";

const doing = { day: DAY };
theDemo();

interface Page {
  loader: (args: never) => Promise<unknown>;
  default: ComponentType<never>;
}

/** The words of a page as they are on it, without what only opens when pressed. */
async function words(page: Page, params: Record<string, string>): Promise<string> {
  const settings = await readSettings(db);
  const request = new Request("http://127.0.0.1/x");
  const loaded = await page.loader({ request, params, context: {} } as never);
  const path = `/${Object.keys(params)
    .map((k) => `:${k}`)
    .join("/")}`;
  const Stub = createRoutesStub([{ id: "page", path, Component: page.default as never, loader: () => null }]);
  const workshop = {
    kind: "own" as const,
    home: "/own",
    name: settings.workshop,
    currency: settings.currency,
    school: settings.school,
    today: DAY,
    dates: settings.dates,
    numbers: settings.numbers,
  };
  const drawn = renderToString(
    createElement(
      WorkshopContext,
      { value: workshop },
      createElement(Stub, {
        initialEntries: [`/${Object.values(params).map(encodeURIComponent).join("/")}`],
        hydrationData: { loaderData: { page: loaded } },
      }),
    ),
  );
  return (
    drawn
      .replace(/<(datalist|script|style)\b.*?<\/\1>/gs, "")
      // Said beside the record and printed nowhere: that its recipe has a newer version, or its material another name.
      .replace(/<span class="no-print">, (which is no longer the newest|now called [^<]*(<!-- -->[^<]*)*)<\/span>/g, "")
      .replace(/<section class="no-print[^"]*">.*?<\/section>/gs, "")
      .replace(/<(?:input|textarea)\b[^>]*?value="([^"]*)"[^>]*>/g, " [$1] ")
      .replace(/<!-- -->/g, "")
      .replace(/<[^>]+>/g, " ")
      .replace(/\s+/g, " ")
  );
}

/** Every settled sheet, by its address. */
async function settled(): Promise<Record<string, string>> {
  const ids = async (rows: Promise<{ id: number }[]>): Promise<string[]> => (await rows).map((r) => String(r.id));
  const sheets: [string, Page, "id" | "number", string[]][] = [
    ["bench", batchPage, "id", await ids(db.select().from(batch).where(isNotNull(batch.pouredActId)))],
    ["markets", dayPage, "id", await ids(db.select().from(marketDay).where(isNotNull(marketDay.closedActId)))],
    ["gifts", orderPage, "id", await ids(db.select().from(giftOrder).where(isNotNull(giftOrder.packedActId)))],
    ["lots", lotPage, "number", (await db.select().from(lot)).map((l) => l.number)],
    ["receipts", receiptPage, "id", await ids(db.select().from(purchase))],
    ["jars", jarPage, "id", await ids(db.select().from(jar).where(isNotNull(jar.strainedActId)))],
    ["labels", labelPage, "id", await ids(db.select().from(jar).where(isNotNull(jar.filledActId)))],
    ["harvests", harvestPage, "id", await ids(db.select().from(harvest).where(isNotNull(harvest.lotId)))],
  ] as never;
  const out: Record<string, string> = {};
  for (const [name, page, key, all] of sheets) for (const one of all) out[`${name}/${one}`] = await words(page, { [key]: one });
  return out;
}

const CHANGES = ["settings", "recipe", "price", "rename", "facts", "away"] as const;
const change = fc.record({ do: fc.constantFrom(...CHANGES), a: fc.nat(997), b: fc.integer({ min: 1, max: 1000 }) });
const pickOf = <T>(rows: readonly T[], n: number): T => rows[n % rows.length]!;

async function make({ do: what, a, b }: { do: (typeof CHANGES)[number]; a: number; b: number }): Promise<unknown> {
  switch (what) {
    case "settings": {
      const s = await readSettings(db);
      return saveSettings(
        db,
        {
          ...s,
          maker: `Maker ${b}`,
          school: pickOf(COSTING_METHOD_IDS, a),
          hourly: micros(b * 100_000),
          overheadHourly: micros(a * 10_000),
          cardFeeBp: a,
          scale: pickOf([{ unit: "g", step: 1000 }, { unit: "oz", step: 10 }, s.scale] as const, b),
          herbValue: a % 2 ? "hours" : "nothing",
          pricing: { ...s.pricing, multipleHundredths: 100 + b, marginBp: a },
        },
        doing,
      );
    }
    case "recipe": {
      const { id } = pickOf(await db.select().from(recipe).orderBy(recipe.id), a);
      const { recipe: r, lines: written, sizes } = (await readWhole(db, id))!;
      const lines = written.map(({ materialId, entered, form, weight }) => ({ materialId, entered, form, weight }));
      const more = b % 2 ? [] : [{ ...lines[0]!, entered: `${b} mg`, weight: b as never }];
      return saveRecipe(
        db,
        {
          ...{ type: r.type, usedOn: a % 2 ? "lips" : "", forWhom: b % 2 ? "children" : "anyone", answers: { [`key ${a}`]: String(b) } },
          makes: r.makes,
          total: r.total,
          overrunBp: r.overrunBp,
          name: `${r.name.slice(0, 30)} ${b}`,
          code: r.code,
          method: `Stir ${b} times. ${r.method}`.slice(0, 400),
          lossBp: b,
          keepsMonths: 1 + (a % 24),
          batchMinutes: b,
          note: "",
          id,
          lines: [...lines, ...more],
          sizes: sizes.map((s, i) => ({
            ...s,
            unitMinutesHundredths: b,
            label: a % 3 ? s.label : `${b} g`,
            fillText: a % 3 ? s.fillText : `${b} g`,
            fillBy: a % 3 ? s.fillBy : "weight",
            fill: (a % 3 ? s.fill : b * 1000) as never,
            retired: i > 0 && b % 3 === 0,
          })),
        },
        doing,
      );
    }
    case "price": {
      const { id } = pickOf(await db.select().from(product).orderBy(product.id), a);
      return choosePrices(
        db,
        { productId: id, own: micros(b * 10_000), prices: { market: micros(b * 20_000), gift: micros(a * 30_000) } },
        doing,
      );
    }
    case "rename":
    case "facts": {
      const m = pickOf(await db.select().from(material).orderBy(material.id), a);
      const over =
        what === "rename"
          ? { name: `${m.name.slice(0, 40)} ${b}`, inci: `Inci ${b}`, botanical: `Planta ${a}` }
          : {
              densities: Object.fromEntries(Object.entries(m.densities).map(([f, d]) => [f, Math.round(d * (0.7 + b / 2000))])),
              oilKept: b / 500,
            };
      return saveMaterial(db, { ...m, ...over }, doing);
    }
    case "away": {
      const m = pickOf(await db.select().from(material).orderBy(material.id), b);
      return retireMaterial(db, { id: m.id, retired: !m.retired }, doing);
    }
  }
}

it("after random changes of settings, recipes, prices, names and materials, every settled sheet and print reads as it did", async () => {
  const before = await settled();
  expect(Object.keys(before).length).toBeGreaterThan(100);
  let made = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(change, { minLength: 12, maxLength: 24 }), async (changes) => {
      for (const c of changes) {
        try {
          await make(c);
          made++;
        } catch (e) {
          if (!(e instanceof Refused)) throw e;
        }
      }
      const after = await settled();
      const other = Object.keys(before).filter((k) => after[k] !== before[k]);
      expect(other.map((k) => [k, firstOther(before[k]!, after[k] ?? "")])).toEqual([]);
    }),
    { numRuns: 4, endOnFailure: true },
  );
  expect(made).toBeGreaterThan(30);
});

/** Where two texts part. */
function firstOther(a: string, b: string): string {
  let at = 0;
  while (at < a.length && a[at] === b[at]) at++;
  return `… ${a.slice(Math.max(0, at - 40), at + 60)} … → … ${b.slice(Math.max(0, at - 10), at + 60)} …`;
}
