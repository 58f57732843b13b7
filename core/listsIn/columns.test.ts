/** Which column of a list is which, what its names mean, and a list of materials. */
import { describe, expect, it } from "vitest";
import { finder, rowsIn, said } from "#test/core/listRows";
import { DAYS, NO_PRODUCT } from "./days.ts";
import { FINISHED } from "./finished.ts";
import type { ListSpec } from "./list.ts";
import { kindIn, MATERIALS, readMaterials } from "./materials.ts";
import { ORDERS } from "./orders.ts";
import { PRICES } from "./prices.ts";

describe("a product's name", () => {
  it.each<[string, string, number | null]>([
    ["Hand balm", "60 g", 1],
    ["hand balm, 60g", "", 1],
    ["HAND  BALM – 30 g", "", 2],
    ["Lip balm", "4.5g", 3],
    ["Lip balm", "", 3],
    // Two sizes; no size of it; two alike; what isn't made any more, the only one of its name.
    ["Hand balm", "", null],
    ["Hand balm", "90 g", null],
    ["Twin", "20 g", null],
    ["Old salve", "50 g", 4],
    ["Hand salve", "60 g", null],
  ])("“%s” “%s” means %s", (product, size, id) => expect(finder().find(product, size)).toBe(id));
  it("means what was said of it, and nothing where it was said to be none", () => {
    const { find } = finder({ "balm, big": "1", nix: NO_PRODUCT, gone: "99" });
    expect([find("Balm", "Big"), find("Nix", ""), find("Gone", "")]).toEqual([1, null, null]);
  });
});

describe("which column is which", () => {
  it.each<[string, ListSpec<string>, object]>([
    ["For;Due;Product;Qty;Each;Notes", ORDERS, { order: null, customer: 0, due: 1, product: 2, units: 3, price: 4, note: 5 }],
    [
      "No;Name;Date;Item;Number;Line total;Delivered on",
      ORDERS,
      { order: 0, customer: 1, due: 2, product: 3, units: 4, total: 5, handedOver: 6 },
    ],
    ["Order date;Customer;Due;What;Count;Price", ORDERS, { order: null, customer: 1, due: 2, product: 3, units: 4, price: 5 }],
    [
      "Where;When;What;Size;How many;Each;Total;Pitch;Fuel",
      DAYS,
      { market: 0, day: 1, product: 2, size: 3, units: 4, price: 5, takings: 6, fee: 7, travel: 8 },
    ],
    [
      "Item;Container;On hand;Batch date;Batch;Use by;Unit cost",
      FINISHED,
      { product: 0, size: 1, units: 2, made: 3, lot: 4, bestBefore: 5, cost: 6 },
    ],
    ["What;Net weight;Retail;Trade;Web shop;Gift orders", PRICES, { product: 0, size: 1, market: 2, wholesale: 3, online: 4, gift: 5 }],
  ])("%s", (heading, spec, columns) => {
    const wide = heading.split(";").length;
    expect(rowsIn(`${heading}\n${"x;".repeat(wide - 1)}x`, spec).columns).toMatchObject(columns);
  });
  it("a row with a number in it has no headings, though it has their words", () => {
    const { rows, left } = rowsIn("2026-05-02;Market at the fair place;Product name;3", DAYS);
    expect([rows.length, left]).toEqual([1, []]);
  });
});

describe("materials", () => {
  it("are the library's where it has the name, else of the kind they say; a name alone is one too", () => {
    const { rows, reading } = rowsIn(
      [
        "Name;Type;Holds ml;Keeps months;Allergens;Notes",
        "Olive oil;;;;;cold pressed",
        "Jojoba oil",
        "Hill wax;Waxes;;24;;",
        "Square tin;tin;27,5;;;",
        "Olive oil;;;;;",
        "Moon dust;spell;;;;",
        "Sal buter;;;;nuts;",
        "Known oil;oil;;;;",
        "Loud oil;oil;30;;;",
      ].join("\n"),
      MATERIALS,
    );
    const read = (matches = {}) => readMaterials(rows, new Set(["known oil"]), matches, reading);
    const { fresh, there, problems, unknown } = read({ "sal buter": "library:sal" });
    const none = { brimMl: null, keepsSealed: null, allergen: "", note: "" };
    expect(fresh).toEqual([
      { row: 2, name: "Olive oil", libraryKey: "olive", kind: "oil", ...none, note: "cold pressed" },
      { row: 3, name: "Jojoba oil", libraryKey: "jojoba", kind: "oil", ...none },
      { row: 4, name: "Hill wax", libraryKey: null, kind: "wax", ...none, keepsSealed: 24 },
      { row: 5, name: "Square tin", libraryKey: null, kind: "container", ...none, brimMl: 27.5 },
      { row: 8, name: "Sal butter", libraryKey: "sal", kind: "hardButter", ...none, allergen: "nuts" },
    ]);
    expect(there).toEqual([{ row: 9, name: "Known oil" }]);
    expect(unknown).toEqual([{ name: "Moon dust", rows: 1 }]);
    expect(said(problems)).toEqual([
      "6: “Olive oil” is in row 2 already.",
      "7: It doesn't say what “Moon dust” is.",
      "10: Only containers and moulds hold so many mL.",
    ]);
    expect(read({ "moon dust": "kind:powder", "sal buter": "Known oil" }).fresh.map((m) => m.name)).toContain("Moon dust");
    expect(read({ "sal buter": "Known oil" }).there.map((t) => t.name)).toEqual(["Sal buter", "Known oil"]);
  });
  it.each([
    ["Liquid oils", "oil"],
    ["carrier oil", "oil"],
    ["EO", "essentialOil"],
    ["Jars", "container"],
    ["screw cap", "closure"],
    ["spell", null],
    ["", null],
  ])("“%s” is the kind %s", (text, kind) => expect(kindIn(text)).toBe(kind));
});
