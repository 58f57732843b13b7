/** A recipe's sheet as a browser opens and posts it, on the demo workshop: new, a copy, an older version, its tests and its prices. */
import { chosenPrices } from "#db/prices/prices";
import { firmnessTestsOf } from "#db/recipe/firmness";
import { versionsOf } from "#db/recipe/history";
import { readRecipes, readVersion, readWhole, type WrittenRecipe } from "#db/recipe/read";
import { cachedSettings } from "#db/settings/settings";
import { listMaterials } from "#db/shelf/materials";
import { reverseAct } from "#db/acts/reverse";
import { euro } from "#test/db/fresh";
import { CHANNEL_IDS } from "#core/pricing/pricingMethods";
import { beforeAll, describe, expect, it } from "vitest";
import { action as save, loader as open } from "#app/recipes/write.tsx";
import { recipeTexts, type RecipeTexts } from "#app/recipes/recipeTexts.ts";
import { action as felt } from "#app/recipes/felt/felt.ts";
import { loader as compare } from "#app/recipes/versions/compare.tsx";
import { loader as list } from "#app/recipes/recipes.tsx";
import { action as mended, loader as ladder } from "#app/prices/ladder.tsx";
import { loader as prices } from "#app/prices/prices.tsx";
import { action as price, loader as openPrices } from "#app/prices/product.tsx";
import { db, newestAct, takeBackNewest, theDemo } from "../demo.ts";
import { load, post, statusOf } from "../posting.ts";

theDemo();

let balm: WrittenRecipe;
let texts: RecipeTexts;
let names: Map<number, string>;
const idIn = (to: string): number => Number(/\d+/.exec(to)![0]);
const opened = (id: number, query = "") => load(open, `/recipes/${id}${query}`, { id: String(id) });

beforeAll(async () => {
  names = new Map((await listMaterials(db)).map((m) => [m.id, m.name]));
  balm = (await readRecipes(db)).find((w) => w.recipe.name === "Sea buckthorn hand balm")!;
  texts = recipeTexts(balm, names);
});

const line = (material: string, entered: string) => ({ material, entered, form: "" });
const tin = { id: "", container: "Screw tin, 80 mL", fill: "60 g", minutes: "2.5", away: "", packaging: [{ material: "", pieces: "1" }] };
const sheet = (over: Partial<RecipeTexts> = {}): RecipeTexts => ({
  ...recipeTexts(null, new Map()),
  name: "Plain salve",
  code: "ps",
  lines: [line("Beeswax, yellow", "20 g"), line("", ""), line("Castor oil", "80 g")],
  sizes: [tin],
  ...over,
});

describe("a recipe that is new", () => {
  it("opens empty, knows which letters are taken, and leads on to nothing but its own sheet", async () => {
    const page = await load(open, "/recipes/new");
    const { hourly, overheadHourly, scale } = await cachedSettings(db);
    expect(page).toMatchObject({ written: null, back: null, like: null, bare: false, leadsOn: false, versions: [], tests: [], book: null });
    expect(page).toMatchObject({ rates: { hourly, overheadHourly }, scale, stuff: [] });
    expect(page.letters).toContain("SB");
  });

  it("as a copy of another, or of a version of it, brings what that is made of", async () => {
    const id = String(balm.recipe.id);
    const copy = await load(open, `/recipes/new?like=${id}`);
    expect(copy.like!.lines).toEqual(balm.lines);
    expect(copy.stuff.map((s) => s.id)).toEqual(expect.arrayContaining(balm.lines.map((l) => l.materialId)));
    const [, before] = await versionsOf(db, balm.recipe.id);
    const first = (await load(open, `/recipes/new?like=${id}&version=${before?.n ?? 1}`)).like!;
    expect(first.recipe.n).toBe(before?.n ?? 1);
    // What a recipe's own page is asked for doesn't make it a copy.
    expect((await opened(balm.recipe.id, "?like=2")).like).toBeNull();
  });

  it("is saved as it was typed: letters in capitals, empty rows passed over, no time where none is said", async () => {
    const { to } = await post(
      save,
      sheet({ batchMinutes: "", loss: "", note: "a try", method: " Melt.\nPour. ", usedOn: "hands", forWhom: "children" }),
    );
    const id = idIn(to);
    const w = (await readWhole(db, id))!;
    expect(w.recipe).toMatchObject({
      name: "Plain salve",
      code: "PS",
      n: 1,
      lossBp: 0,
      batchMinutes: 0,
      usedOn: "hands",
      forWhom: "children",
    });
    expect(w.recipe).toMatchObject({ method: "Melt.\nPour.", keepsMonths: 12, total: 100_000, makes: null });
    expect(w.lines.map((l) => [l.name, l.entered, l.weight])).toEqual([
      ["Beeswax, yellow", "20 g", 20_000],
      ["Castor oil", "80 g", 80_000],
    ]);
    expect(w.sizes).toMatchObject([{ label: "60 g", fill: 60_000, fillText: "60 g", unitMinutesHundredths: 250, retired: false }]);
    expect(w.sizes[0]!.packaging.map((p) => [names.get(p.materialId), p.pieces])).toEqual([["Screw tin, 80 mL", 1]]);
    expect((await versionsOf(db, id)).map((v) => [v.n, v.note])).toEqual([[1, "a try"]]);
    const page = await opened(id);
    expect(recipeTexts(page.written, names)).toMatchObject({
      name: "Plain salve",
      loss: "0",
      batchMinutes: "0",
      lines: [{ entered: "20 g" }, { entered: "80 g" }],
    });
    expect(page).toMatchObject({ back: null, letters: [], versions: [{ n: 1 }] });
    expect(page.book!.acts.length).toBe(1);
  });

  it.each<[string, Partial<RecipeTexts>, Record<string, string>]>([
    ["no name", { name: " " }, { name: "Enter a name." }],
    ["five letters", { code: "ABCDE" }, { code: "Use one to four letters." }],
    ["a number for letters", { code: "A1" }, { code: "Use one to four letters." }],
    ["letters of another", { code: "sb" }, { code: expect.stringContaining("SB") as string }],
    ["more loss than half", { loss: "51" }, { loss: "Enter 0 to 50 per cent." }],
    ["air three times over", { overrun: "201" }, { overrun: "Enter 0 to 200 per cent." }],
    ["no months", { keepsMonths: "0" }, { keepsMonths: "Enter at least 1." }],
    ["four years", { keepsMonths: "37" }, { keepsMonths: "37 months can't be right; the most here is 36." }],
    ["nothing in it", { lines: [line("", "")] }, { "lines.0.material": expect.any(String) as string }],
    [
      "what the shelf hasn't",
      { lines: [line("Moon dust", "1 g")] },
      { "lines.0.material": expect.stringContaining("Moon dust") as string },
    ],
    ["an amount of nothing", { lines: [line("Castor oil", "")] }, { "lines.0.entered": expect.any(String) as string }],
    [
      "half a tin",
      { sizes: [{ ...tin, packaging: [{ material: "Round label, 50 mm", pieces: "0.5" }] }] },
      { "sizes.0.packaging.0.pieces": "Enter a whole number of pieces." },
    ],
    ["a fill that is no amount", { sizes: [{ ...tin, fill: "some" }] }, { "sizes.0.fill": expect.any(String) as string }],
    ["hours for a unit", { sizes: [{ ...tin, minutes: "601" }] }, { "sizes.0.minutes": "Enter 0 to 600 minutes." }],
  ])("with %s is refused beside it, and nothing is saved", async (_, over, said) => {
    const before = (await readRecipes(db)).length;
    const answer = await post(save, sheet({ name: "Another", code: "AN", ...over }));
    expect(answer.status).toBe(422);
    expect(answer.data).toMatchObject({ problems: [{ field: Object.keys(said)[0], say: Object.values(said)[0] }] });
    expect((await readRecipes(db)).length).toBe(before);
  });
});

describe("a recipe that is there", () => {
  it("saved with another amount is its next version; the old one opens as it was, in the sizes of now", async () => {
    const { id, n } = balm.recipe;
    const lines = texts.lines.map((l, i) => (i === 0 ? { ...l, entered: "1 cup" } : l));
    const { seen } = (await opened(id)).opened;
    expect((await post(save, { ...texts, lines, note: "firmer", seen }, String(id))).status).toBe(302);
    const now = (await readWhole(db, id))!;
    expect([now.recipe.n, now.lines[0]!.entered]).toEqual([n + 1, "1 cup"]);
    const back = await opened(id, `?version=${n}`);
    expect(back.back).toBe(n);
    expect(back.written!.lines).toEqual(balm.lines);
    expect(back.written!.sizes).toEqual(now.sizes);
    // The newest one, and one there never was, are the recipe itself.
    for (const other of [n + 1, 99, 0]) expect((await opened(id, `?version=${other}`)).back, String(other)).toBeNull();
    // Two windows: the second is shown what the first has saved, as its fields say it.
    const late = await post(save, { ...texts, name: "Sea balm", seen }, String(id));
    expect(late).toMatchObject({
      status: 409,
      data: { changed: { theirs: { name: balm.recipe.name, lines: [{ entered: "1 cup" }, {}, {}, {}, {}, {}] } } },
    });
    await takeBackNewest();
  });

  it("has answers to what is said of it, and its size put away, without a new version", async () => {
    const { id, n } = balm.recipe;
    const sizes = texts.sizes.map((s, i) => (i === 1 ? { ...s, away: "yes" } : s));
    const answers = [{ key: "gritty shea", word: "I know" }];
    const { seen } = (await opened(id)).opened;
    expect((await post(save, { ...texts, sizes, answers, seen }, String(id))).status).toBe(302);
    const now = (await readWhole(db, id))!;
    expect(now.recipe).toMatchObject({ n, answers: { "gritty shea": "I know" } });
    expect(now.sizes.map((s) => [s.id, s.retired])).toEqual(balm.sizes.map((s, i) => [s.id, i === 1]));
    await takeBackNewest();
  });

  it("isn't there under a number nobody has", async () => {
    expect(await statusOf(opened(99_999))).toBe(404);
    expect(await statusOf(load(compare, "/recipes/99999/versions", { id: "99999" }))).toBe(404);
  });
});

describe("two versions side by side", () => {
  it("are those asked for, and without a word the last two; batches and the shelf of today come along", async () => {
    const { id } = balm.recipe;
    const lines = texts.lines.map((l, i) => (i === 0 ? { ...l, entered: "3/4 cup" } : l));
    const { seen } = (await opened(id)).opened;
    await post(save, { ...texts, lines, seen }, String(id));
    const [newest = 0, before] = (await versionsOf(db, id)).map((v) => v.n);
    const page = (query = "") => load(compare, `/recipes/${id}/versions${query}`, { id: String(id) });
    const two = await page();
    expect([two.a.recipe.n, two.b.recipe.n]).toEqual([before, newest]);
    expect(two.batches.length).toBe(3);
    const asked = await page(`?a=${newest}&b=1`);
    expect([asked.a.recipe.n, asked.b.recipe.n]).toEqual([newest, 1]);
    expect(asked.b.lines).toEqual((await readVersion(db, id, 1))!.lines);
    const unknown = await page("?a=77&b=-3");
    expect([unknown.a.recipe.n, unknown.b.recipe.n]).toEqual([before, newest]);
    expect(new Set(asked.stuff.map((s) => s.id))).toEqual(
      new Set(
        [
          ...asked.a.lines,
          ...asked.b.lines,
          ...asked.a.sizes.flatMap((s) => s.packaging),
          ...asked.b.sizes.flatMap((s) => s.packaging),
        ].map((l) => l.materialId),
      ),
    );
    await takeBackNewest();
  });
});

describe("a test of how firm it is", () => {
  it("is noted for its version, at its warmth, on this day; what is none is refused", async () => {
    const id = String(balm.recipe.id);
    const test = { n: String(balm.recipe.n), celsius: "4", feel: "firm", note: "from the fridge" };
    expect(await post(felt, { ...test, feel: "rocky" }, id)).toMatchObject({ status: 422, fields: ["feel"] });
    expect(await post(felt, { ...test, celsius: "91" }, id)).toMatchObject({ fields: ["celsius"], say: "Enter -30 to 90 degrees." });
    expect(await post(felt, { ...test, n: "77" }, id)).toMatchObject({ status: 422 });
    expect((await post(felt, test, id)).status).toBe(302);
    expect((await firmnessTestsOf(db, balm.recipe.id))[0]).toMatchObject({
      celsius: 4,
      feel: "firm",
      note: "from the fridge",
      day: "2026-11-25",
    });
    expect((await opened(balm.recipe.id)).tests.length).toBe(1);
    await takeBackNewest();
  });
});

describe("prices", () => {
  it("each channel's stays until another is chosen; a product's page has its cost, its cautions and both windows' figures", async () => {
    const { id } = balm.sizes[0]!;
    const before = (await chosenPrices(db)).get(id)!;
    const seen = (await load(openPrices, `/prices/${id}`, { id: String(id) })).opened.seen;
    const body = { own: "12.34", market: "13", online: "", wholesale: "", gift: "", seen };
    expect(await post(price, { ...body, market: "lots" }, String(id))).toMatchObject({ status: 422, fields: ["market"] });
    expect((await post(price, body, String(id))).status).toBe(302);
    expect((await chosenPrices(db)).get(id)).toEqual({ ...before, market: euro(13) });
    const page = await load(openPrices, `/prices/${id}`, { id: String(id) });
    expect(page).toMatchObject({
      name: `Sea buckthorn hand balm, ${balm.sizes[0]!.label}`,
      product: { id, ownPrice: euro(12.34) },
      chosen: { market: euro(13) },
    });
    expect(page.rules).toEqual((await cachedSettings(db)).pricing);
    // What was chosen before is still told, with its day; the new one is one change.
    const told = page.steps.map((s) => s.prices);
    expect(told[0]).toEqual({ market: euro(13) });
    expect(told.slice(1).some((p) => p.market === before.market)).toBe(true);
    expect(page.minded.allergens.map((a) => a.name)).toContain("Bee product");
    const late = await post(price, { ...body, market: "14" }, String(id));
    expect(late).toMatchObject({
      status: 409,
      data: { changed: { theirs: { own: "12.34", market: "13.00", online: "11.90", wholesale: "6.40", gift: "12.00" } } },
    });
    expect((await newestAct()).kind).toBe("price");
    await takeBackNewest();
    expect((await chosenPrices(db)).get(id)).toEqual(before);
    expect((await load(openPrices, `/prices/${id}`, { id: String(id) })).steps.map((s) => s.prices)).toEqual(told.slice(1));
    expect(await statusOf(load(openPrices, "/prices/9999", { id: "9999" }))).toBe(404);
  });

  it("the ladder tells what doesn't fit, mends it by one press, once, and only what was seen; taken back it is as it was", async () => {
    const { id, label } = balm.sizes[0]!;
    const chosen = async () => (await chosenPrices(db)).get(id)!;
    const before = await chosen();
    const mine = async () => (await load(ladder, "/prices/ladder")).ladders.find((l) => l.rungs.some((r) => r.id === id))!;
    const fits = await mine();
    expect(fits.rungs.map((r) => r.prices.market! / r.fill)).toEqual(
      fits.rungs.map((r) => r.prices.market! / r.fill).sort((a, b) => b - a),
    );
    const { unfit } = await load(prices, "/prices");
    const seen = (await load(openPrices, `/prices/${id}`, { id: String(id) })).opened.seen;
    const given = { own: "", market: "", online: "", wholesale: "1", gift: "", seen };
    await post(price, given, String(id));
    const typed = (await newestAct()).id;
    const worst = (await mine()).findings[0]!;
    expect([worst.wrong, worst.of]).toEqual(["underCost", { id, channel: "wholesale", price: euro(1) }]);
    expect((await load(ladder, "/prices/ladder")).ladders[0]!.findings[0]!.wrong).toBe("underCost");
    expect((await load(prices, "/prices")).unfit).toBeGreaterThan(unfit);
    const [mend] = worst.mends;
    const press = { ...mend!, was: euro(1) };
    expect(await post(mended, { ...press, was: euro(2) })).toMatchObject({ status: 422 });
    expect(await chosen()).toMatchObject({ wholesale: euro(1) });
    expect(await post(mended, press)).toMatchObject({ status: 302, to: "/prices/ladder" });
    expect(await chosen()).toEqual({ ...before, wholesale: mend!.price });
    expect((await newestAct()).summary).toBe(`Another price chosen for Sea buckthorn hand balm, ${label}`);
    // From another window, by what was seen before.
    expect((await post(mended, press)).status).toBe(422);
    expect((await mine()).findings).toEqual(fits.findings);
    await takeBackNewest();
    expect(await chosen()).toMatchObject({ wholesale: euro(1) });
    await reverseAct(db, typed, { day: "2026-11-25" });
    expect(await chosen()).toEqual(before);
  });

  it("the list has every size that is made, by the workshop's costing method, and what each price leaves after its fee", async () => {
    const { school, pricing } = await cachedSettings(db);
    const [{ products: rows }, chosen, recipes] = [await load(prices, "/prices"), await chosenPrices(db), await load(list, "/recipes")];
    const made = (await readRecipes(db)).flatMap((w) => w.sizes);
    expect(rows.map((r) => r.id).sort()).toEqual(made.map((p) => p.id).sort());
    const of = new Map(recipes.recipes.flatMap((r) => r.sizes.map((s) => [s.id, s.perUnit[["lot", "average", "again"].indexOf(school)]])));
    for (const r of rows) {
      expect(r.cost, r.name).toBe(of.get(r.id));
      for (const [i, c] of CHANNEL_IDS.entries()) {
        const p = chosen.get(r.id)?.[c];
        if (p === undefined) expect(r.views[i]).toBeNull();
        else {
          const fee = (p * pricing.channels[c].feeBp) / 10_000;
          expect(r.views[i]!.price).toBe(p);
          expect(Math.abs(r.views[i]!.view!.margin - (p - fee - r.cost!)), `${r.name} ${c}`).toBeLessThanOrEqual(1);
        }
      }
    }
  });
});
