/** The shelf at a glance: totals that agree with the lots, whatever was done, and searches that take letters as letters. */
import { sum } from "#core/measure/exact";
import { addDays } from "#core/when";
import { describe, expect, it } from "vitest";
import { lotsOfMaterials } from "../ledger/lots.ts";
import { buy, DAY, db, eachTestHasAWorkshop, ids, make } from "#test/db/workshop";
import { saveMaterial } from "./keepMaterial.ts";
import { onShelf, shelfBoards } from "./overview.ts";

eachTestHasAWorkshop();

describe("boards", () => {
  it("add up to what the lots are worth, before and after a batch", async () => {
    for (const step of [() => Promise.resolve(), () => make(3), () => buy(ids.oil, 700_000, 8, addDays(DAY, 30))]) {
      await step();
      const [boards, all, lots] = [await shelfBoards(db, DAY), await onShelf(db, DAY, {}, 99), await lotsOfMaterials(db)];
      expect(sum(boards.map((b) => b.worth))).toBe(sum(lots.map((l) => l.value)));
      expect(sum(boards.map((b) => b.materials))).toBe(all.length);
      for (const m of all) expect(m.onHand).toBe(sum(lots.filter((l) => l.of === m.id).map((l) => l.onHand)));
    }
    const oil = (await shelfBoards(db, DAY)).find((b) => b.kind === "oil");
    expect(oil).toMatchObject({ materials: 1, soon: 1 });
  });
  it("name a board for each kind that has materials, and no other", async () => {
    expect((await shelfBoards(db, DAY)).map((b) => b.kind).sort()).toEqual(["box", "container", "oil", "wax"]);
    await saveMaterial(db, { name: "Mint", kind: "herb", densities: {} }, { day: DAY });
    expect((await shelfBoards(db, DAY)).find((b) => b.kind === "herb")).toEqual({ kind: "herb", materials: 1, worth: 0, low: 0, soon: 0 });
  });
});

describe("finding", () => {
  it.each([
    ["OIL", ["Oil"]],
    ["i", ["Oil", "Tin"]],
    ["%", []],
    ["_", []],
    ["\\", []],
    ["'; drop table lot; --", []],
    ["x", ["Box", "Wax"]],
  ])("%j finds %j", async (find, names) => expect((await onShelf(db, DAY, { find }, 99)).map((m) => m.name)).toEqual(names));
  it("shows one board, by name, and no more than asked", async () => {
    for (const name of ["Borage oil", "Almond oil", "Castor oil"])
      await saveMaterial(db, { name, kind: "oil", densities: {} }, { day: DAY });
    expect((await onShelf(db, DAY, { kind: "oil" }, 99)).map((m) => m.name)).toEqual(["Almond oil", "Borage oil", "Castor oil", "Oil"]);
    expect(await onShelf(db, DAY, { kind: "oil" }, 2)).toHaveLength(2);
  });
});
