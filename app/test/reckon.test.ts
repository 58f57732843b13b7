/** The reckon bar against the demo workshop: amounts, strengths, costs, lots and names. */
import type { OpenDb } from "#db/client";
import { freshDb } from "#db/test/fresh";
import { loadDemo } from "#demo/load";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { loader } from "../reckon/reckon.ts";

let db: OpenDb;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ db, drop } = await freshDb());
  await loadDemo(db, "2026-11-25");
  process.env.ZELBIN_TODAY = "2026-11-25";
  globalThis.zelbinDb = db;
});
afterAll(() => drop());

const ask = (q: string) =>
  loader({ request: new Request(`http://127.0.0.1/reckon?q=${encodeURIComponent(q)}`), params: {}, context: {} } as never);

describe("amounts", () => {
  it.each([
    ["2 1/2 cups sunflower oil high in g", "2 1/2 cups Sunflower oil, high oleic = 541.2 g"],
    ["1 cup of jojoba in oz", "1 cup Jojoba oil = 7.22 oz"],
    ["100 g shea in tbsp", "100 g Shea butter, unrefined = 7.35 tbsp"],
    ["30 drops vitamin e in mL", "30 drops Vitamin E, natural = 2 mL"],
    ["1/2 cup beeswax in g", "1/2 cup Beeswax, yellow = 56.78 g"],
  ])("%s", async (q, say) => expect(await ask(q)).toMatchObject({ say }));
  it("shows the steps and the way to the material", async () => {
    const answer = await ask("2 tbsp castor oil in g");
    expect(answer.steps).toEqual(["2 tbsp weigh 28.39 g", "liquid Castor oil weighs 0.96 g per mL"]);
    expect(answer.places).toMatchObject([{ name: "Castor oil on the shelf" }]);
  });
  it.each([
    ["2 cups moonlight in g", /Nothing on the shelf is called “moonlight”/],
    ["2 tbsp elderflower dried in g", /has no density for dried/],
    ["3 pcs jojoba in g", /nobody has said what one piece/],
    ["2 g jojoba in parts", /can't be turned into parts/],
  ])("%s can't be answered, and says why", async (q, say) => {
    const answer = await ask(q);
    expect(answer.problem).toBe(true);
    expect(answer.say).toMatch(say);
  });
});

describe("strength", () => {
  it.each([
    ["30 drops lavender in 400 g", /is 0\.33\s%$/],
    ["1 mL juniper in 100 g", /is 0\.87\s%$/],
    ["5 g lavender in 5 g", /is 100\.00\s%$/],
  ])("%s", async (q, say) => expect((await ask(q)).say).toMatch(say));
  it("a whole that is a volume is refused", async () =>
    expect((await ask("5 drops lavender in 1 cup")).say).toMatch(/Give the whole as a weight/));
});

describe("costs", () => {
  it("of so many units, cheaper each the more there are", async () => {
    const each = async (n: number): Promise<number> => Number(/€([\d.]+) each$/.exec((await ask(`cost ${n} × garden salve`)).say)![1]);
    expect(await each(40)).toBeLessThan(await each(5));
  });
  it("passes over a size before the name, and says what it is made of", async () => {
    const answer = await ask("cost 12 x 2 oz hand balm");
    expect(answer.say).toMatch(/^12 × Sea buckthorn hand balm \(60 g\) cost €[\d.]+, €[\d.]+ each$/);
    expect(answer.steps[0]).toMatch(/costed by: this very lot/);
    expect(answer.places).toMatchObject([{ name: "The recipe" }]);
  });
  it.each([
    ["cost 5 tallow soap", /No recipe is called “tallow soap”/],
    ["cost 0 hand balm", /1 to 10 000 units/],
    ["cost 99999 hand balm", /1 to 10 000 units/],
  ])("%s", async (q, say) => expect((await ask(q)).say).toMatch(say));
});

describe("looking up", () => {
  it("a lot number goes straight to its history", async () => {
    expect(await ask("sb261117-1")).toMatchObject({ say: "SB261117-1: Sea buckthorn hand balm", places: [{ to: "/lots/SB261117-1" }] });
  });
  it("a word finds the material, the recipe and the lots", async () => {
    const { places } = await ask("sea buckthorn");
    expect(places.map((p) => p.name)).toContain("Sea buckthorn berry oil on the shelf");
    expect(places.map((p) => p.name)).toContain("Sea buckthorn hand balm, the recipe");
    expect(places.length).toBeGreaterThan(3);
  });
  it.each(["", "zzz", "%", "'; select 1"])("%j finds nothing and says what can be asked", async (q) => {
    expect((await ask(q)).say).toMatch(/Nothing found/);
  });
});
