/** Sheets of market days and gift orders as a browser posts and opens them, on the demo workshop. */
import { listCabinet } from "#db/cabinet/cabinet";
import { listGiftOrders, type GiftOrderRead } from "#db/gifts/gifts";
import { listMarketDays } from "#db/markets/markets";
import { listProducts } from "#db/recipe/read";
import { productNames } from "#core/recipe/productNames";
import { listMaterials } from "#db/shelf/materials";
import { euro, expectLedgerTrue } from "#test/db/fresh";
import { describe, expect, it } from "vitest";
import { action as market, loader as openMarket } from "#app/markets/day.tsx";
import { action as order, loader as openOrder } from "#app/gifts/order.tsx";
import { DAY, db, theDemo } from "./demo.ts";
import { load, post } from "./posting.ts";

theDemo();

const numberIn = (path: string): number => Number(/\d+$/.exec(path)![0]);

describe("a market day", () => {
  const line = { lot: "", taken: "3", sold: "2", given: "", damaged: "", price: "10" };
  const sheet = (over: object = {}) => ({ intent: "keep", name: "Quay fair", day: DAY, byCard: "", lines: [line], ...over });
  /** A lot that may be sold, with a few units of it. */
  const lot = async (at = 0) => (await listCabinet(db)).filter((l) => !l.hold && l.onHand >= 4 && l.bestBefore! > DAY)[at]!;

  it.each<[string, (number: string) => object, Record<string, unknown>]>([
    ["units of no lot", () => ({ lines: [{ ...line, lot: "" }] }), { "lines.0.lot": "Which lot?" }],
    ["a lot nobody poured", () => ({ lines: [{ ...line, lot: "ZZ1" }] }), { "lines.0.lot": "No lot ZZ1 is in the cabinet." }],
    [
      "more gone than came along",
      (lot) => ({ lines: [{ ...line, lot, given: "1", damaged: "1" }] }),
      { "lines.0.sold": "4 went, but only 3 were taken along." },
    ],
    [
      "a day that hasn't come",
      (lot) => ({ intent: "close", day: "2026-11-26", lines: [{ ...line, lot }] }),
      { day: "That day hasn't come yet; save it as a plan." },
    ],
    [
      "a cent more by card than was taken",
      (lot) => ({ intent: "close", byCard: "20.01", lines: [{ ...line, lot }] }),
      { byCard: "More was paid by card than was taken." },
    ],
    [
      "a lot that was poured later",
      (lot) => ({ intent: "close", day: "2025-12-01", lines: [{ ...line, lot }] }),
      { "lines.0.lot": expect.stringContaining("before that day there was none of it") as string },
    ],
    ["nothing taken along", () => ({ intent: "close", lines: [] }), { "lines.0.lot": "Enter what was taken along." }],
    [
      "a button nobody has",
      () => ({ intent: "sing" }),
      { "": "That button isn't known here, and nothing was done. Reload the page and try again." },
    ],
  ])("%s", async (_, over, said) => {
    const before = await listMarketDays(db);
    const answer = await post(market, sheet(over((await lot()).number)));
    expect(answer).toMatchObject({ status: 422, fields: Object.keys(said), say: Object.values(said)[0] });
    expect(await listMarketDays(db)).toEqual(before);
  });

  it("says of a lot that stands in two lines that it does, in whichever letters it is typed, and passes over an empty line", async () => {
    const { number } = await lot();
    const lines = [
      { ...line, lot: `${number} and its name` },
      { lot: " ", price: "" },
      { ...line, lot: number.toLowerCase() },
    ];
    expect(await post(market, sheet({ lines }))).toMatchObject({ fields: ["lines.2.lot"], say: `${number} is here twice.` });
  });

  it("is planned ahead, opens as it was planned, and a copy has its fees and neither its day nor its lots", async () => {
    const { number, id: lotId } = (await load(openMarket, "/markets/new")).lots.find((l) => l.free >= 3)!;
    const planned = { day: "2026-12-12", stallFee: "35", travel: "4.50", cardFee: "1.75", hours: "5.5", note: "By the well" };
    const { to, say } = await post(market, sheet({ ...planned, lines: [{ ...line, lot: number, sold: "" }] }));
    expect(say).toBe("");
    const id = numberIn(to);
    const [day] = await listMarketDays(db, [id]);
    expect(day).toMatchObject({
      name: "Quay fair",
      day: "2026-12-12",
      stallFee: euro(35),
      travel: euro(4.5),
      cardFeeBp: 175,
      minutes: 330,
    });
    expect(day!.lines).toMatchObject([{ lotId, taken: 3, sold: 0, price: euro(10) }]);
    const opened = await load(openMarket, `/markets/${id}`, { id: String(id) });
    expect(opened.texts).toMatchObject({ name: "Quay fair", ...planned, stallFee: "35.00" });
    // Its own units are free for it: they aren't on the way to anywhere else.
    expect(opened.lots.find((l) => l.id === lotId)!.free).toBeGreaterThanOrEqual(3);
    const copy = (await load(openMarket, `/markets/new?like=${id}`)).texts;
    expect(copy).toMatchObject({ name: "Quay fair", stallFee: "35.00", hours: "5.5", day: "", byCard: "", note: "" });
    expect(copy.lines).toEqual([{ lot: "", taken: "", sold: "", given: "", damaged: "", price: "" }]);
    expect((await load(openMarket, `/markets/new?at=${"x".repeat(100)}`)).texts.name).toBe("x".repeat(80));
  });

  it("closed, with all of it paid by card, its units are gone by its own day and its lots are told soonest first", async () => {
    const [one, two] = [await lot(0), await lot(1)];
    const body = sheet({
      intent: "close",
      day: "2026-11-24",
      byCard: "40",
      lines: [
        { ...line, lot: one.number },
        { ...line, lot: two.number },
      ],
    });
    const { to, say } = await post(market, body);
    expect(say).toBe("");
    const [day] = await listMarketDays(db, [numberIn(to)]);
    expect(day).toMatchObject({ day: "2026-11-24", byCard: euro(40) });
    expect(day!.closedActId).not.toBeNull();
    const now = new Map((await listCabinet(db)).map((l) => [l.id, l.onHand]));
    for (const l of [one, two]) expect(now.get(l.id)).toBe(l.onHand - 2);
    const { lots } = await load(openMarket, "/markets/new");
    const dates = lots.map((l) => l.bestBefore);
    expect(dates).toEqual([...dates].sort());
    for (const l of lots) expect(l.free, l.number).toBeLessThanOrEqual(l.hold ? 0 : l.onHand);
    await expectLedgerTrue(db);
  });
});

describe("a gift order", () => {
  const item = async () => {
    const products = (await listProducts(db)).filter((p) => !p.retired);
    const of = products[0]!;
    return { of, name: productNames(await listProducts(db)).get(of.id)! };
  };
  const wrap = async () => (await listMaterials(db)).find((m) => m.kind === "wrap")!;
  const sheet = (over: object = {}) => ({ intent: "keep", customer: "Choir", due: "2026-12-10", items: [], wrapping: [], ...over });

  it("says beside its field what is wrong, and keeps nothing", async () => {
    const { name } = await item();
    const before = await listGiftOrders(db);
    const right = { product: name, units: "2", price: "9" };
    const cases: [object, Record<string, string>][] = [
      [{}, { "items.0.product": "Enter at least one product." }],
      [{ items: [{ product: " " }] }, { "items.0.product": "Enter at least one product." }],
      [{ items: [{ ...right, product: "Moon dust" }] }, { "items.0.product": "“Moon dust” isn't a product. Choose one from the list." }],
      [{ items: [{ ...right, units: "0" }] }, { "items.0.units": "Enter at least 1." }],
      [{ items: [{ product: "" }, { ...right, price: "" }] }, { "items.1.price": "Enter an amount of money; 0 if it cost nothing." }],
      [
        { items: [right], wrapping: [{ material: "Castor oil", pieces: "1" }] },
        { "wrapping.0.material": "“Castor oil” isn't wrapping on the shelf." },
      ],
      [{ items: [right], wrapping: [{ material: (await wrap()).name, pieces: "0" }] }, { "wrapping.0.pieces": "Enter at least 1." }],
      [{ items: [right], intent: "pack" }, { "": "Save the order first, then pack it." }],
      [{ items: [right], due: "" }, { due: "" }],
      [{ items: [right], customer: "" }, { customer: "Enter who it is for." }],
    ];
    for (const [over, said] of cases) {
      const answer = await post(order, sheet(over));
      expect(answer, JSON.stringify(over)).toMatchObject({ status: 422, fields: Object.keys(said) });
      if (Object.values(said)[0]) expect(answer.say).toBe(Object.values(said)[0]);
    }
    expect(await listGiftOrders(db)).toEqual(before);
  });

  it("is saved as it was typed, opens as it was saved, and a copy is for nobody yet", async () => {
    const { of, name } = await item();
    const ribbon = await wrap();
    const typed = { extra: "3", discount: "7.5", wrapMinutes: "12", note: "Green ribbon" };
    const items = [{ product: "" }, { product: name.toUpperCase(), units: "2", price: "9.50" }];
    const { to, say } = await post(order, sheet({ ...typed, items, wrapping: [{ material: ribbon.name, pieces: "2" }] }));
    expect(say).toBe("");
    const id = numberIn(to);
    const [saved] = (await listGiftOrders(db, [id])) as [GiftOrderRead];
    expect(saved).toMatchObject({
      customer: "Choir",
      due: "2026-12-10",
      extra: euro(3),
      discountBp: 750,
      wrapMinutes: 12,
      note: "Green ribbon",
    });
    expect(saved.items).toMatchObject([{ productId: of.id, units: 2, price: euro(9.5) }]);
    expect(saved.wrapping).toMatchObject([{ materialId: ribbon.id, pieces: 2 }]);
    const opened = await load(openOrder, `/gifts/${id}`, { id: String(id) });
    expect(opened.texts).toMatchObject({ ...typed, extra: "3.00", customer: "Choir", due: "2026-12-10" });
    expect(opened.texts.items).toMatchObject([{ product: name, units: "2", price: "9.50", lot: "" }]);
    expect(opened.products.map((p) => p.id)).toEqual([of.id]);
    const copy = (await load(openOrder, `/gifts/new?like=${id}`)).texts;
    expect(copy).toEqual({ ...opened.texts, customer: "", due: "" });
    expect((await load(openOrder, "/gifts/new?for=Osmer")).texts).toMatchObject({ customer: "Osmer", items: [{ product: "" }] });
  });

  it("takes what a name meant when it was typed, and the name itself where what it meant is gone", async () => {
    const products = (await listProducts(db)).filter((p) => !p.retired);
    const called = productNames(products);
    const [a, b] = products as [(typeof products)[number], (typeof products)[number]];
    const name = called.get(b.id)!;
    for (const [means, of] of [
      [`${a.id} ${name}`, a.id],
      [`999999 ${name}`, b.id],
      ["", b.id],
    ] as const) {
      const { to } = await post(order, sheet({ items: [{ product: name, means, units: "1", price: "1" }] }));
      expect((await listGiftOrders(db, [numberIn(to)]))[0]!.items[0]!.productId, means).toBe(of);
    }
    await expectLedgerTrue(db);
  });
});
