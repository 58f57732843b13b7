/** The facts of a material, as posted. */
import type { KindId } from "#core/material/kinds";
import { describe, expect, it } from "vitest";
import { ValidationError } from "yup";
import { factsSchema, materialFrom } from "./facts.server.ts";

const posted = (over: Record<string, unknown> = {}) => ({
  name: "Hemp oil",
  kind: "oil" as KindId,
  inci: "",
  allergen: "",
  note: "",
  reorder: "",
  dropsPerMl: "",
  piece: "",
  densities: { liquid: "0.92" },
  reorderBy: "never",
  vegan: "",
  refined: "",
  kept: "",
  cautions: [],
  ...over,
});
const keep = (over: Record<string, unknown> = {}) => {
  const m = materialFrom(factsSchema.validateSync(posted(over), { abortEarly: false }), [{ id: 7, name: "Lid 60" }]);
  if (!m.ok) throw new Error(m.reply.data.problems.map((p) => `${p.field}: ${p.say}`).join());
  return m.value;
};
const problem = (over: Record<string, unknown>): string => {
  try {
    keep(over);
  } catch (e) {
    return e instanceof ValidationError ? `${e.inner[0]?.path ?? e.path}: ${e.errors[0]}` : (e as Error).message;
  }
  throw new Error("It was kept.");
};

describe("a material's facts", () => {
  it("are stored as whole milligrams per millilitre, for the forms of its kind only", () => {
    expect(keep()).toMatchObject({
      name: "Hemp oil",
      kind: "oil",
      densities: { liquid: 920 },
      dropsPerMl: null,
      pieceMg: null,
      reorderAt: null,
    });
    expect(keep({ densities: { liquid: "0,915", pellets: "0.48" } }).densities).toEqual({ liquid: 915 });
    expect(keep({ kind: "wax", densities: { pellets: "0.48", block: "", melted: ".86" } }).densities).toEqual({
      pellets: 480,
      melted: 860,
    });
    expect(keep({ kind: "container", densities: { liquid: "0.92" } }).densities).toEqual({});
  });
  it("read a reminder in any unit the material can be measured in", () => {
    expect(keep({ reorderBy: "hand", reorder: "500 g" }).reorderAt).toBe(500_000);
    expect(keep({ reorderBy: "hand", reorder: "1 L" }).reorderAt).toBe(920_000);
    expect(keep({ kind: "container", reorderBy: "hand", reorder: "24" }).reorderAt).toBe(24);
  });
  it("forget a point that isn't set by hand", () => {
    expect(keep({ reorderBy: "use", reorder: "500 g" })).toMatchObject({ reorderBy: "use", reorderAt: null });
  });
  it("keep what a container holds and the lid that fits, and only for containers", () => {
    const tin = keep({ kind: "container", inner: "60", fill: "25", brim: "80 mL", empty: "14 g", lid: "lid 60" });
    expect(tin).toMatchObject({ innerMm: 60, fillMm: 25, brimMl: 80, emptyMg: 14_000, lidId: 7 });
    expect(keep({ lid: "Lid 60" }).lidId).toBeNull();
  });
  it("keep drops per mL and a piece's weight", () => {
    expect(keep({ dropsPerMl: "15", piece: "0.35 g" })).toMatchObject({ dropsPerMl: 15, pieceMg: 350 });
  });
  it.each<[Record<string, unknown>, RegExp]>([
    [{ name: "" }, /^name: Enter a name/],
    [{ kind: "potion" }, /^kind: Choose one/],
    [{ reorderBy: "hand", reorder: "" }, /^reorder: Say below how much/],
    [{ meltFrom: "40", meltTo: "30" }, /^meltTo: It can't end below/],
    [{ keepsSealed: "6", keepsOpened: "9" }, /^keepsOpened: Opened, it can't keep longer/],
    [{ keepsSealed: "0" }, /^keepsSealed: Enter 1 to 120 months/],
    [{ cautions: ["cursed"] }, /^cautions\[0\]: Choose one/],
    [{ kind: "container", inner: "60", fill: "25", brim: "50 mL" }, /^fill: That comes to 70.7 mL, more than it holds/],
    [{ kind: "container", lid: "Cork" }, /^lid: Choose a lid/],
    [{ densities: { liquid: "92" } }, /^densities.liquid: A density here is between/],
    [{ densities: { liquid: "thin" } }, /^densities.liquid: A density/],
    [{ dropsPerMl: "200" }, /^dropsPerMl: Enter 5 to 60/],
    [{ piece: "two" }, /^piece: /],
    [{ reorder: "500" }, /^reorder: Add a unit/],
    [{ reorder: "2 cups", densities: {} }, /^reorder: Hemp oil has no density/],
    [{ kind: "container", reorder: "2 cups" }, /^reorder: Hemp oil is counted/],
  ])("refuse %j", (over, say) => expect(problem(over)).toMatch(say));
});
