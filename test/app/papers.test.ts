/**
 * Each paper of the demo as PDF, opened by another library: it says what the books say, keeps to itself what is nobody else's business, and is
 * whole on A4 and on letter.
 */
import { grams, gramsIn } from "#core/measure/write";
import { money } from "#core/measure/money";
import { dayResult } from "#core/market/day";
import { onScale, showSteps } from "#core/recipe/scale";
import { batch, giftOrder, lot, marketDay } from "#db/schema";
import { chosenPrices } from "#db/prices/prices";
import { listGiftOrders } from "#db/gifts/gifts";
import { listMarketDays } from "#db/markets/markets";
import { readBatch } from "#db/bench/read";
import { cachedSettings, saveSettings } from "#db/settings/settings";
import { findLot, traceLot } from "#db/lots/trace";
import { onShelf } from "#db/shelf/overview";
import { and, asc, desc, gt, isNotNull, isNull, type SQL } from "drizzle-orm";
import type { PgTable } from "drizzle-orm/pg-core";
import { describe, expect, it } from "vitest";
import { loader as batchPdf } from "#app/bench/batchPdf.ts";
import { loader as orderPdf } from "#app/gifts/orderPdf.ts";
import { loader as lotPdf } from "#app/lots/lotPdf.ts";
import { action as begin } from "#app/lots/recall/begin.tsx";
import { loader as letters } from "#app/lots/recall/letters.tsx";
import { loader as lettersPdf } from "#app/lots/recall/lettersPdf.ts";
import { loader as dayPdf } from "#app/markets/dayPdf.ts";
import { loader as pricesPdf } from "#app/prices/pricesPdf.ts";
import { loader as stockTakePdf } from "#app/shelf/counting/stockTakePdf.ts";
import { loader as shelfPdf } from "#app/shelf/shelfPdf.ts";
import { DAY, db, theDemo } from "./demo.ts";
import { load, post, statusOf } from "./posting.ts";
import { faults, sheetsOf, textOf, type Sheet } from "../papers.ts";

theDemo();

/** A paper's sheets, found whole. */
async function paper(loader: unknown, params: Record<string, string> = {}, path = "/x"): Promise<Sheet[]> {
  const answer = (await load(loader as (args: never) => unknown, path, params)) as Response;
  expect(answer.headers.get("content-type")).toBe("application/pdf");
  expect(answer.headers.get("content-disposition")).toMatch(/^attachment; filename="[\w.-]+\.pdf"$/);
  const sheets = await sheetsOf(new Uint8Array(await answer.arrayBuffer()));
  expect(faults(sheets)).toEqual([]);
  return sheets;
}
/** All that is on it, in one line of plain spaces. */
const said = (sheets: readonly Sheet[]): string => textOf(sheets).replace(/[\s\u00a0\u202f]+/g, " ");
const plain = (text: string): string => text.replace(/[\s\u00a0\u202f]+/g, " ");
const expectAll = (text: string, words: readonly string[]): void => expect(words.filter((w) => !text.includes(plain(w)))).toEqual([]);

const first = async (table: PgTable & { id: typeof batch.id }, where: SQL | undefined, last = false): Promise<number> => {
  const [row] = await db
    .select({ id: table.id })
    .from(table)
    .where(where)
    .orderBy(last ? desc(table.id) : asc(table.id))
    .limit(1);
  return row!.id;
};

describe("at the bench", () => {
  it("a weigh sheet has each weight as the scale shows it, its lot, and the caution; a poured batch its record", async () => {
    const open = (await readBatch(db, await first(batch, and(isNull(batch.pouredActId), isNull(batch.clearedActId)))))!;
    const { scale } = await cachedSettings(db);
    const sheet = said(await paper(batchPdf, { id: String(open.batch.id) }));
    expectAll(sheet, [
      open.recipe.name,
      "Never leave hot wax",
      "Left in the jug",
      `Together ${showSteps(
        open.takes.reduce((a, t) => a + onScale(t.planned, scale).steps, 0),
        scale,
      )}`,
      ...open.takes.flatMap((t) => [t.material, grams(onScale(t.planned, scale).weight), open.lots.find((l) => l.id === t.lotId)!.number]),
    ]);
    const poured = (await readBatch(db, await first(batch, isNotNull(batch.pouredActId), true)))!;
    const record = said(await paper(batchPdf, { id: String(poured.batch.id) }));
    expectAll(record, [
      "Batch record",
      "Deviations",
      "nothing here clears a product",
      ...poured.takes.flatMap((t) => [t.material, gramsIn(1)(t.weighed!), poured.lots.find((l) => l.id === t.lotId)!.number]),
      ...poured.sizes.filter((s) => s.units).map((s) => s.lot!.number),
    ]);
    expect(await statusOf(load(batchPdf as never, "/x", { id: "9999" }))).toBe(404);
  });
});

describe("for those who buy", () => {
  it("an order's slip says what is in it, what it comes to and its lots, and nothing of what it costs", async () => {
    const id = await first(giftOrder as never, isNotNull(giftOrder.packedActId));
    const order = (await listGiftOrders(db, [id]))[0]!;
    const settings = await cachedSettings(db);
    const slip = said(await paper(orderPdf, { id: String(id) }));
    const goods = order.items.reduce((a, i) => a + i.units * i.price, 0);
    expectAll(slip, [
      order.customer,
      settings.workshop,
      settings.reachUs,
      money(goods, "EUR"),
      "Packed out of",
      ...order.items.map((i) => i.name),
    ]);
    expect(slip).not.toMatch(/cost|profit|margin|an hour/i);
    const ahead = said(await paper(orderPdf, { id: String(await first(giftOrder as never, isNull(giftOrder.packedActId))) }));
    expect(ahead).toContain("Not packed yet");
    expect(ahead).not.toContain("Packed out of");
    expect(await statusOf(load(orderPdf as never, "/x", { id: "9999" }))).toBe(404);
  });

  it("a price list has every product that has such a price, at that price alone", async () => {
    const chosen = await chosenPrices(db);
    const text = said(await paper(pricesPdf, {}, "/prices/pdf?for=wholesale"));
    const wanted = [...chosen.values()].flatMap((p) => (p.wholesale === undefined ? [] : [money(p.wholesale, "EUR")]));
    expect(text.match(/€[\d.]+/g)!.sort()).toEqual(wanted.sort());
    expect(text).not.toMatch(/cost|%|an hour/i);
    for (const asked of ["", "?for=nobody"]) expect(await statusOf(load(pricesPdf as never, `/prices/pdf${asked}`))).toBe(404);
  });
});

describe("markets", () => {
  it("a closed day has its profit; one ahead has what goes along, and lines to fill in", async () => {
    const id = await first(marketDay as never, isNotNull(marketDay.closedActId));
    const day = (await listMarketDays(db, [id]))[0]!;
    const { profit, takings } = dayResult({ ...day, hours: day.minutes / 60 });
    const text = said(await paper(dayPdf, { id: String(id) }));
    expectAll(text, [day.name, money(profit, "EUR"), money(takings, "EUR"), ...day.lines.flatMap((l) => [l.name, l.number])]);
    const open = await first(marketDay as never, isNull(marketDay.closedActId));
    const along = said(await paper(dayPdf, { id: String(open) }));
    expectAll(along, ["What goes along", "Cash at the start", ...(await listMarketDays(db, [open]))[0]!.lines.map((l) => l.number)]);
    expect(along).not.toContain("Profit");
  });
});

describe("the shelf and its lots", () => {
  it("the shelf has every material, or those that are asked for; the stock-take every lot with what is expected", async () => {
    const all = await onShelf(db, DAY, {}, 1000);
    expectAll(
      said(await paper(shelfPdf)),
      all.map((m) => m.name),
    );
    const found = said(await paper(shelfPdf, {}, "/shelf/pdf?find=beeswax"));
    expect(all.filter((m) => found.includes(m.name)).map((m) => m.name)).toEqual(
      all.filter((m) => /beeswax/i.test(m.name)).map((m) => m.name),
    );
    const lots = await db
      .select({ number: lot.number })
      .from(lot)
      .where(and(isNotNull(lot.materialId), gt(lot.onHand, 0 as never)));
    expectAll(
      said(await paper(stockTakePdf)),
      lots.map((l) => l.number),
    );
  });

  it("a lot's trace names everything it came from and went into, and everybody who had of it", async () => {
    const [wax] = await db.select({ number: lot.number }).from(lot).where(isNotNull(lot.materialId)).orderBy(asc(lot.id)).limit(1);
    const { id } = (await findLot(db, wax!.number))!;
    const { forward, back, history } = await traceLot(db, id);
    expect(forward.length).toBeGreaterThan(0);
    const text = said(await paper(lotPdf, { number: wax!.number }));
    expectAll(text, [
      ...[...forward, ...back].map((s) => s.lot.number),
      ...history.flatMap((h) => [h.market, h.customer].filter((n): n is string => n !== null)),
    ]);
  });

  it("a recall's letters are the page's, each from a page of its own, also on letter paper", async () => {
    const [wax] = await db.select({ id: lot.id }).from(lot).where(isNotNull(lot.materialId)).orderBy(asc(lot.id)).limit(1);
    const of = { lots: [wax!.id], reason: "It smells of solvent.", toDo: "Bring it back.", rehearsal: true };
    expect(await post(begin, of)).toMatchObject({ status: 302, to: "/lots/recalls/1" });
    const page = await load(letters, "/x", { id: "1" });
    const sheets = await paper(lettersPdf, { id: "1" });
    expect(sheets).toHaveLength(page.letters.length);
    sheets.forEach((sheet, i) => expect(said([sheet])).toContain(plain(page.letters[i]!.text)));
    await saveSettings(db, { paper: "letter" }, { day: DAY });
    const letter = await paper(lettersPdf, { id: "1" });
    expect([letter[0]!.width, letter[0]!.height, letter.length]).toEqual([612, 792, sheets.length]);
  });
});
