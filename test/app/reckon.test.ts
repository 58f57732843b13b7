/** The reckon bar against the demo workshop: a hundred questions of our own, with those of test/core/said/workroom/plain.txt that need no book. */
import { describe, expect, it } from "vitest";
import { EXAMPLES } from "#app/reckon/reading.ts";
import { loader } from "#app/reckon/reckon.ts";
import { theDemo } from "./demo.ts";

theDemo();

const ask = (q: string) =>
  loader({ request: new Request(`http://127.0.0.1/reckon?q=${encodeURIComponent(q)}`), params: {}, context: {} } as never);
/** The likeliest reading. */
const best = async (q: string) => (await ask(q))[0]!;
const places = async (q: string) => (await ask(q)).flatMap((r) => r.places.map((p) => p.to));

describe("amounts", () => {
  it.each([
    ["2 1/2 cups sunflower oil high in g", "2 1/2 cups Sunflower oil, high oleic = 541.2 g"],
    ["1 cup of jojoba in oz", "1 cup Jojoba oil = 7.22 oz"],
    ["100 g shea in tbsp", "100 g Shea butter, unrefined = 7.35 tbsp"],
    ["30 drops vitamin e in mL", "30 drops Vitamin E, natural = 2 mL"],
    ["30 drops tocopherol in mL", "30 drops Vitamin E, natural = 2 mL"],
    ["1/2 cup beeswax in g", "1/2 cup Beeswax, yellow, pellets = 56.78 g"],
    ["1/2 cup grated beeswax in g", "1/2 cup Beeswax, yellow, grated = 39.04 g"],
    ["1/2 cup beeswax pellets", "1/2 cup Beeswax, yellow, pellets = 56.78 g"],
    ["1/2 cup of beswax", "1/2 cup Beeswax, yellow, pellets = 56.78 g"],
    ["1/4 cup solid yellow beeswax", "1/4 cup Beeswax, yellow, block = 56.78 g"],
    ["100 g jojoba", "100 g Jojoba oil = 3.53 oz"],
    ["2 tbsp buter shea in g", "2 tbsp Shea butter, unrefined, block = 27.21 g"],
  ])("%s", async (q, say) => expect((await best(q)).say).toBe(say));
  it("the oil comes before what is steeped in it, and what else it may mean stands under it", async () => {
    const answers = await ask("2 1/2 cups olive oil in g");
    expect(answers[0]!.say).toMatch(/^2 1\/2 cups Olive oil = /);
    expect((await ask("1 cup oil in g")).length).toBeGreaterThan(1);
  });
  it("shows the steps, the other forms, and the way to the material", async () => {
    const answer = await best("2 tbsp castor oil in g");
    expect(answer.steps).toEqual(["2 tbsp weigh 28.39 g", "liquid Castor oil weighs 0.96 g per mL"]);
    expect(answer.places).toMatchObject([{ name: "Castor oil on the shelf" }]);
    expect((await best("1/4 cup beeswax")).steps.at(-1)).toBe("In another form: grated 19.52 g, block 56.78 g, melted 50.87 g");
  });
  it.each([
    ["2 cups moonlight in g", /Nothing on the shelf is called “moonlight”/],
    ["2 tbsp elderflower dried in g", /has no density for dried/],
    ["3 pcs jojoba in g", /nobody has said what one piece/],
    ["2 g jojoba in parts", /can't be turned into parts/],
  ])("%s can't be answered, and says why", async (q, say) => {
    const answer = await best(q);
    expect(answer.problem).toBe(true);
    expect(answer.say).toMatch(say);
  });
});

describe("several together", () => {
  it.each([
    ["60 g beeswax + 240 g olive oil", "300 g together"],
    ["60 g beeswax, 240 g olive oil and 20 g jojoba into 16 pots", "320 g together, 16 × 20 g"],
    ["500 g into 16 pots", "500 g is 16 × 31.25 g"],
    ["1 dL jojoba + 10 g moonlight", "96.5 g together"],
    ["1 gal jojoba in g", "1 gal Jojoba oil = 3274.38 g"],
  ])("%s", async (q, say) => expect((await best(q)).say.replace(/\s/g, " ")).toBe(say));
  it("shows what each came to, and says what it can't", async () => {
    expect((await best("1 dL jojoba + 10 g moonlight")).steps).toEqual(["1 dL Jojoba oil = 86.5 g", "10 g moonlight"]);
    expect((await best("1 cup moonlight + 5 g beeswax")).say).toBe("Nothing on the shelf is called “moonlight”.");
  });
});

describe("strength", () => {
  it.each([
    ["30 drops lavender in 400 g", /is 0\.33\s%$/],
    ["1 mL juniper in 100 g", /is 0\.87\s%$/],
    ["5 g lavender in 5 g", /is 100\.00\s%$/],
  ])("%s", async (q, say) => expect((await best(q)).say).toMatch(say));
  it("a whole that is a volume is refused", async () =>
    expect((await best("5 drops lavender in 1 cup")).say).toMatch(/Give the whole as a weight/));
});

describe("costs and what to weigh", () => {
  it("of so many units, cheaper each the more there are", async () => {
    const each = async (n: number): Promise<number> => Number(/€([\d.]+) each$/.exec((await best(`cost ${n} × garden salve`)).say)![1]);
    expect(await each(40)).toBeLessThan(await each(5));
  });
  it("a size before the name is the one meant", async () => {
    const answer = await best("cost 12 x 60 g hand balm");
    expect(answer.say).toMatch(/^12 × Sea buckthorn hand balm \(60 g\) cost €[\d.]+, €[\d.]+ each$/);
    expect(answer.steps[0]).toMatch(/costed by: lot cost/);
    expect(answer.places).toMatchObject([{ name: "The recipe" }]);
    expect((await best("what does hand balm cost?")).say).toMatch(/^1 × Sea buckthorn hand balm/);
  });
  it("hand balm for so many: what to weigh, and the way to set it out", async () => {
    const answer = await best("hand balm for 20 tins");
    expect(answer.say).toMatch(/^Sea buckthorn hand balm for 20 × 60 g: 1\s2\d\d(\.\d)? g in the pot$/);
    expect(answer.steps.length).toBeGreaterThan(3);
    expect(answer.places[0]!.to).toMatch(/^\/bench\/set-out\?recipe=\d+&units=20$/);
    expect((await best("hand balm for 2 kg")).say).toMatch(/for 2\s000 g: 2\s000 g in the pot/);
  });
  it.each([
    ["cost 5 tallow soap", /No recipe is called “tallow soap”/],
    ["cost 0 hand balm", /1 to 10 000 units/],
    ["cost 99999 hand balm", /1 to 10 000 units/],
  ])("%s", async (q, say) => expect((await best(q)).say).toMatch(say));
});

describe("how many it fills", () => {
  it.each([
    ["how many 60 g tins from 500 g", ["8 of 60 g tins from 500 g"]],
    ["how many 60 g jars does 2 kg fill?", ["33 of 60 g jars from 2 kg"]],
    // An ounce of balm is one by weight or one by volume: both are said.
    ["how many 2 oz tins from 500 g", ["8 of 2 oz tins from 500 g", "9 of 2 fl oz tins from 500 g"]],
    ["how many 30 mL pots from 500 g", ["18 of 30 mL pots from 500 g"]],
  ])("%s", async (q, say) => expect((await ask(q)).map((r) => r.say)).toEqual(say));
  it("says what is left, and by what density", async () => {
    const [byWeight, byVolume] = await ask("how many 2 oz tins from 500 g");
    expect(byWeight!.steps).toEqual(["8 × 56.7 g = 453.6 g, 46.4 g left"]);
    expect(byVolume!.steps[1]).toContain("0.90 g per mL");
  });
});

describe("acts and screens", () => {
  it.each([
    ["receive", "/shelf/receive"],
    ["set out 24 hand balm", /^\/bench\/set-out\?recipe=\d+&units=24$/],
    ["make lip pot", /^\/bench\/set-out\?recipe=\d+$/],
    ["count beeswax", /^\/shelf\/\d+$/],
    ["count", "/shelf/stock-take"],
    ["receive castor oil", /^\/shelf\/receive\?material=\d+$/],
    ["receive from skerow", "/shelf/receive?supplier=Skerrow%20Oil%20Press"],
    ["fill a jar with plantain", /^\/jars\/fill\?material=\d+$/],
    ["fill a jar", "/jars/fill"],
    ["write a recipe", "/recipes/new"],
    ["add", "/shelf/library"],
    ["price hand balm", /^\/prices\/\d+$/],
    ["plan a market", "/markets/new"],
    ["order for the choir", "/gifts/new"],
    ["stock-take", "/shelf/stock-take"],
    ["shopping", "/shelf/shopping"],
    ["settings", "/settings"],
    ["undo", "/book"],
    ["workshop", "/workshops"],
    ["cabinet", "/cabinet"],
  ] as const)("%s leads there", async (q, to) => {
    const found = await places(q);
    if (typeof to === "string") expect(found).toContain(to);
    else
      expect(
        found.some((p) => to.test(p)),
        found.join(" "),
      ).toBe(true);
  });
});

describe("looking up", () => {
  it("a lot number goes straight to its history", async () => {
    expect(await best("sb261117-1")).toMatchObject({ say: "SB261117-1: Sea buckthorn hand balm", places: [{ to: "/lots/SB261117-1" }] });
  });
  it("who bought a lot: each day and person with how many", async () => {
    const answer = await best("who bought SB260827-1");
    expect(answer.say).toMatch(/^SB260827-1, Sea buckthorn hand balm, went to \d places?$/);
    expect(answer.places[0]!.name).toMatch(/: \d+ units?$/);
    expect(answer.places.at(-1)!.to).toBe("/lots/SB260827-1");
    expect((await best("who bought XX-1")).say).toBe("There is no lot XX-1.");
  });
  it("a word finds the material, the recipe and the lots", async () => {
    const { places } = await best("sea buckthorn");
    expect(places.map((p) => p.name)).toContain("Sea buckthorn berry oil on the shelf");
    expect(places.map((p) => p.name)).toContain("Sea buckthorn hand balm, the recipe");
    expect(places.length).toBeGreaterThan(3);
  });
  it.each(["", "zzz", "%", "'; select 1", "\0"])("%j finds nothing and says what can be asked", async (q) => {
    expect((await best(q)).say).toMatch(/can be asked/);
  });
});

it("a sum or a temperature is answered before anything is looked up, and 2 oz is said both ways", async () => {
  expect((await best("a third of 800 g")).say).toBe("266.7 g");
  expect((await best("130 F in C")).say).toBe("130 °F = 54.4 °C");
  expect((await ask("2 oz")).map((r) => r.say)).toEqual(["2 oz = 56.7 g", "2 fl oz = 59.15 mL"]);
});

it("every example that is shown is answered", async () => {
  for (const q of EXAMPLES) {
    if (q.startsWith("who bought")) continue;
    const answer = await best(q);
    expect(answer.problem, `${q}: ${answer.say}`).toBeUndefined();
  }
});
