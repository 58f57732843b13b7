/** A hundred lines as people scribble them: what each is read as, what is asked, and that none is misread. All of them our own. */
import fc from "fast-check";
import { describe as group, expect, it } from "vitest";
import { kind, type KindId } from "../../material/kinds.ts";
import { parseAmount } from "../../measure/parse.ts";
import { MOST_LINES, readScribbled, type Scribbled } from "./read.ts";
import type { Meant } from "./match.ts";
import { weightOfSizes } from "./sizes.ts";

const meant = (name: string, of: KindId, also = "", pieceMg: number | null = null): Meant => ({
  name,
  also,
  kind: of,
  densities: kind(of).start,
  dropsPerMl: of === "essentialOil" ? 20 : null,
  pieceMg: pieceMg as Meant["pieceMg"],
});
const SHELF: readonly Meant[] = [
  meant("Beeswax, yellow", "wax", "Cera Flava"),
  meant("Candelilla wax", "wax"),
  meant("Cocoa butter, raw", "hardButter", "Theobroma Cacao"),
  meant("Mango butter", "hardButter"),
  meant("Shea butter, unrefined", "softButter", "Butyrospermum Parkii"),
  meant("Coconut oil, virgin", "softButter", "Cocos Nucifera"),
  meant("Fractionated coconut oil", "oil"),
  meant("Olive oil", "oil", "Olea Europaea"),
  meant("Jojoba oil", "oil", "Simmondsia Chinensis"),
  meant("Sunflower oil, high oleic", "oil"),
  meant("Almond oil, sweet", "oil"),
  meant("Calendula infused oil", "infusedOil"),
  meant("Plantain infused oil", "infusedOil"),
  meant("Lavender essential oil", "essentialOil", "Lavandula Angustifolia"),
  meant("Lavender flowers, dried", "herb"),
  meant("Peppermint essential oil", "essentialOil", "Mentha Piperita"),
  meant("Tea tree essential oil", "essentialOil"),
  meant("Vitamin E, natural", "antioxidant", "Tocopherol", 350),
  meant("Arrowroot starch", "powder"),
  meant("Mica, pearl", "colour"),
  meant("Honey", "watery", "Mel"),
];

const said = (s: Scribbled): string =>
  s.as !== "line"
    ? s.as
    : [
        s.line.material,
        s.line.entered,
        s.line.form,
        ...s.asks.map((a) => `?${a.field}${a.choices.length > 0 ? ` ${a.choices.map((c) => c.value).join(" | ")}` : ""}`),
      ].join(" · ");
const read = (text: string): string[] => readScribbled(text, SHELF).map(said);

const BEES = "Beeswax, yellow";
const SHEA = "Shea butter, unrefined";
const COCO = "Coconut oil, virgin";
const FORMS = "?form pellets | grated | block | melted";
const CUPS = "?form block | chopped | melted";

/** A line, and what it is read as; asked about where there is a question mark. */
const LINES: readonly (readonly [string, ...string[]])[] = [
  // Amounts first.
  ["1/4 cup grated beeswax, packed", `${BEES} · 1/4 cup · grated`],
  ["28 g beeswax", `${BEES} · 28 g · pellets`],
  ["1 oz beeswax", `${BEES} · 1 oz · pellets`],
  ["¼ cup beeswax pellets", `${BEES} · 1/4 cup · pellets`],
  ["1/4 c. beeswax pastilles", `${BEES} · 1/4 cup · pellets`],
  ["2 T beeswax beads", `${BEES} · 2 tbsp · pellets`],
  ["2 level tablespoons of yellow beeswax pellets", `${BEES} · 2 tbsp · pellets`],
  ["1 cup olive oil", "Olive oil · 1 cup · liquid"],
  ["1 cup extra virgin olive oil", "Olive oil · 1 cup · liquid"],
  ["1½ cups olive oil", "Olive oil · 1 1/2 cups · liquid"],
  ["1 1/2 cups olive oil", "Olive oil · 1 1/2 cups · liquid"],
  ["2 1/2 tbsp. jojoba", "Jojoba oil · 2 1/2 tbsp · liquid"],
  ["250ml sunflower oil", "Sunflower oil, high oleic · 250 mL · liquid"],
  ["0,5 L olive oil", "Olive oil · 1/2 L · liquid"],
  ["150 g shea butter", `${SHEA} · 150 g · block`],
  ["150g of raw unrefined shea butter, softened", `${SHEA} · 150 g · block`],
  ["4 oz shea", `${SHEA} · 4 oz · block`],
  ["1 lb 4 oz mango butter", "Mango butter · 1.25 lb · block"],
  ["1 cup plus 2 tbsp olive oil", "Olive oil · 1 1/8 cups · liquid"],
  ["30 drops lavender essential oil", "Lavender essential oil · 30 drops · liquid"],
  ["15 gtt tea tree", "Tea tree essential oil · 15 drops · liquid"],
  ["1 tsp vitamin E", "Vitamin E, natural · 1 tsp · liquid"],
  ["1 t vitamin e oil", "vitamin e oil · 1 tsp ·  · ?material Vitamin E, natural"],
  ["3 capsules vitamin E", "Vitamin E, natural · 3 pcs · liquid"],
  ["2 droppers vitamin E", "Vitamin E, natural · 2 droppers · liquid"],
  ["1 tbsp arrowroot", "Arrowroot starch · 1 tbsp · powder"],
  ["12 % beeswax", `${BEES} · 12 % · pellets`],
  ["60% calendula-infused oil", "Calendula infused oil · 60 % · liquid"],
  ["3 parts calendula oil", "Calendula infused oil · 3 parts · liquid"],
  ["1 part cocoa butter", "Cocoa butter, raw · 1 part · block"],
  ["a cup of olive oil", "Olive oil · 1 cup · liquid"],
  ["half a cup of olive oil", "Olive oil · 1/2 cup · liquid"],
  ["two tablespoons jojoba oil", "Jojoba oil · 2 tbsp · liquid"],
  ["• 40 g cocoa butter", "Cocoa butter, raw · 40 g · block"],
  ["- [ ] 40 g cocoa butter wafers", "Cocoa butter, raw · 40 g · chopped"],
  ["* 40 grams   Cocoa Butter (deodorised)", "Cocoa butter, raw · 40 g · block"],
  ["about 40 g mango butter", "Mango butter · 40 g · block"],
  ["~ 40 g mango butter", "Mango butter · 40 g · block"],
  ["approx. 40 g mango butter", "Mango butter · 40 g · block"],
  ["100 g coconut oil", `${COCO} · 100 g · block`],
  ["100 g fractionated coconut oil", "Fractionated coconut oil · 100 g · liquid"],
  ["100 g Butyrospermum Parkii", `${SHEA} · 100 g · block`],
  ["100 g shea buter", `shea buter · 100 g ·  · ?material ${SHEA}`],
  ["1 kg olive oil", "Olive oil · 1 kg · liquid"],
  ["8 fl oz olive oil", "Olive oil · 8 fl oz · liquid"],
  ["8 fl. oz. olive oil", "Olive oil · 8 fl oz · liquid"],
  ["1 pint olive oil", "Olive oil · 1 pint · liquid"],
  // Amounts last.
  ["Olive oil - 200 g", "Olive oil · 200 g · liquid"],
  ["Olive oil: 200 g", "Olive oil · 200 g · liquid"],
  ["Olive oil ........ 200 g", "Olive oil · 200 g · liquid"],
  ["Olive oil\t200 g", "Olive oil · 200 g · liquid"],
  ["Olive oil 200g", "Olive oil · 200 g · liquid"],
  ["Olive oil, 60 %", "Olive oil · 60 % · liquid"],
  ["Beeswax (yellow) 15%", `${BEES} · 15 % · pellets`],
  ["Shea butter = 2 parts", `${SHEA} · 2 parts · block`],
  ["Lavender essential oil – 20 drops", "Lavender essential oil · 20 drops · liquid"],
  // Said twice.
  ["1 cup (217 g) olive oil", "Olive oil · 217 g · liquid"],
  ["1/2 cup (57 g) beeswax pellets", `${BEES} · 57 g · pellets`],
  ["60 drops (3 ml) lavender essential oil", "Lavender essential oil · 60 drops · liquid"],
  ["1 cup (120 g) olive oil", "Olive oil ·  · liquid · ?entered 1 cup | 120 g"],
  // How full a measure was.
  ["a good quarter cup mango butter, melted", "Mango butter · 1/4 cup · melted · ?form block | chopped | grated | melted"],
  ["a scant cup olive oil", "Olive oil · 1 cup · liquid"],
  ["scant 1/4 cup jojoba", "Jojoba oil · 1/4 cup · liquid"],
  ["three quarters of a cup of olive oil", "Olive oil · 3/4 cup · liquid"],
  ["1 good tablespoon jojoba", "Jojoba oil · 1 tbsp · liquid"],
  ["2 dl olive oil", "Olive oil · 2 dL · liquid"],
  ["1/4 gallon olive oil", "Olive oil · 1/4 gal · liquid"],
  // What could be two things is asked about.
  ["1/4 cup beeswax", `${BEES} · 1/4 cup · pellets · ${FORMS}`],
  ["1/4 cup beeswax, melted", `${BEES} · 1/4 cup · melted · ${FORMS}`],
  ["1 cup shea butter", `${SHEA} · 1 cup · block · ${CUPS}`],
  ["1/2 cup coconut oil", `${COCO} · 1/2 cup · block · ${CUPS}`],
  ["4 oz olive oil", "Olive oil · 4 oz · liquid · ?entered 4 oz | 4 fl oz"],
  ["Olive oil, 4 ounces", "Olive oil · 4 oz · liquid · ?entered 4 oz | 4 fl oz"],
  ["20-30 drops lavender essential oil", "Lavender essential oil ·  · liquid · ?entered 20 drops | 25 drops | 30 drops"],
  ["20 to 30 drops lavender essential oil", "Lavender essential oil ·  · liquid · ?entered 20 drops | 25 drops | 30 drops"],
  ["1 or 2 tbsp jojoba", "Jojoba oil ·  · liquid · ?entered 1 tbsp | 1 1/2 tbsp | 2 tbsp"],
  ["10 g lavender", "lavender · 10 g ·  · ?material Lavender essential oil | Lavender flowers, dried"],
  ["a pinch of mica", "Mica, pearl ·  · powder · ?entered"],
  ["a few drops of peppermint essential oil", "Peppermint essential oil ·  · liquid · ?entered"],
  ["some honey", "Honey ·  · liquid · ?entered"],
  ["Peppermint essential oil, to taste", "Peppermint essential oil ·  · liquid · ?entered"],
  ["vitamin E (optional)", "Vitamin E, natural ·  · liquid · ?entered"],
  ["Shea butter", `${SHEA} ·  · block · ?entered`],
  ["1.250 g olive oil", "Olive oil · 1.250 g · liquid · ?entered"],
  ["1,500 g olive oil", "Olive oil · 1,500 g · liquid · ?entered"],
  ["3 olive oil", "Olive oil · 3 · liquid · ?entered"],
  [
    "50 g oil",
    "oil · 50 g ·  · ?material Olive oil | Jojoba oil | Coconut oil, virgin | Fractionated coconut oil | Almond oil, sweet | Calendula infused oil",
  ],
  ["20 g emu fat", "emu fat · 20 g · "],
  // Ratios as they are said.
  ["1 oz wax to 1 cup olive oil", `wax · 1 oz ·  · ?material Candelilla wax | ${BEES}`, "Olive oil · 1 cup · liquid"],
  ["1 oz beeswax to 1 cup olive oil", `${BEES} · 1 oz · pellets`, "Olive oil · 1 cup · liquid"],
  ["¼ cup beeswax pellets to 1 cup calendula oil", `${BEES} · 1/4 cup · pellets`, "Calendula infused oil · 1 cup · liquid"],
  ["14 g beeswax per 100 g olive oil", `${BEES} · 14 g · pellets`, "Olive oil · 100 g · liquid"],
  ["8 : 8 : 6.5 coconut oil : shea : beeswax", `${COCO} · 8 parts · block`, `${SHEA} · 8 parts · block`, `${BEES} · 6.5 parts · pellets`],
  [
    "8:8:6.5 (coconut oil, mango butter, beeswax)",
    `${COCO} · 8 parts · block`,
    "Mango butter · 8 parts · block",
    `${BEES} · 6.5 parts · pellets`,
  ],
  [
    "2 : 1 : 1 shea : jojoba : coconut oil by weight",
    `${SHEA} · 2 parts · block`,
    "Jojoba oil · 1 part · liquid",
    `${COCO} · 1 part · block`,
  ],
  [
    "equal parts beeswax, coconut oil and shea butter",
    `${BEES} · 1 part · pellets`,
    `${COCO} · 1 part · block`,
    `${SHEA} · 1 part · block`,
  ],
  [
    "1 part beeswax, 1 part mango butter, 2 parts olive oil",
    `${BEES} · 1 part · pellets`,
    "Mango butter · 1 part · block",
    "Olive oil · 2 parts · liquid",
  ],
  // Headings and steps among them.
  ["Ingredients:", "heading"],
  ["For the base:", "heading"],
  ["## Winter salve", "heading"],
  ["Yield: 6 tins", "heading"],
  ["Makes 4 x 60 ml", "sizes"],
  ["Melt the beeswax over hot water, then add the oils.", "step"],
  ["1. Melt the wax gently.", "step"],
  ["Pour at about 55 °C and leave it overnight", "step"],
  ["Stir in 30 drops of lavender off the heat", "step"],
  ["Allow 20 minutes to set", "step"],
];

group("a hundred scribbled lines", () => {
  it.each(LINES)("%s", (text, ...expected) => expect(read(text)).toEqual(expected));
});

it("of these hundred and seven most are read, the rest asked about, and none is read as another thing", () => {
  const lines = LINES.flatMap(([text]) => readScribbled(text, SHELF)).filter((s) => s.as === "line");
  const asked = lines.filter((l) => l.asks.length > 0);
  expect([LINES.length, lines.length, asked.length]).toEqual([107, 111, 25]);
  // What is asked about is never taken for answered: there is no amount that nobody wrote.
  for (const l of asked)
    for (const a of l.asks) if (a.choices.length > 1) expect(new Set(a.choices.map((c) => c.value)).size).toBe(a.choices.length);
});

group("a whole recipe", () => {
  const text = `Winter salve (makes about 4 tins)

    Ingredients
    • 1/4 cup grated beeswax, packed
    • 1 cup calendula oil
    • 4 oz olive oil
    • 20-30 drops lavender essential oil

    Method
    1. Melt 2 oz of it first.
    2. Olive oil 200 g goes in last.`;
  it("keeps its lines, headings and steps in order, and asks only where there is something to ask", () => {
    const all = readScribbled(text, SHELF);
    expect(all.map((s) => s.as)).toEqual(["title", "heading", "line", "line", "line", "line", "heading", "step", "step"]);
    expect(all.flatMap((s) => (s.as === "line" ? [s.asks.length] : []))).toEqual([0, 0, 1, 1]);
    expect(all.map((s) => s.at)).toEqual([0, 2, 3, 4, 5, 6, 8, 9, 10]);
  });
  it("knows its title by what is made, and none where a line names a material or says an amount", () => {
    const first = (line: string) => readScribbled(`${line}\n40 g olive oil`, [...SHELF, meant("Tallow", "softButter")])[0]!.as;
    expect(["Tallow salve", "# Winter lip balm", "Grandma's balm (a small pot)", "Whipped body butter"].map(first)).toEqual(
      Array(4).fill("title"),
    );
    expect(
      ["Shea butter", "Cocoa butter, raw", "Melt the butter", "2 oz shea butter", "equal parts beeswax and mango butter"].map(first),
    ).toEqual(["line", "line", "step", "line", "line"]);
    expect(readScribbled("Tallow salve", SHELF)[0]!.as).toBe("heading");
  });
  it("reads what it fills as sizes, and what all of them hold", () => {
    const sizes = (line: string) => {
      const [s] = readScribbled(line, SHELF);
      return s?.as === "sizes" ? s.sizes.map((x) => `${x.units} × ${x.fill}`) : s?.as;
    };
    expect(sizes("Fill six 2 oz jars and six 1 oz")).toEqual(["6 × 2 oz", "6 × 1 oz"]);
    expect(sizes("5. Fill a dozen 15-ml tins, and 3 x 60 g")).toEqual(["12 × 15 mL", "3 × 60 g"]);
    expect(sizes("Makes about 4 tins")).toBe("heading");
    expect(sizes("Fill the jars while it pours")).toBe("step");
    expect(
      weightOfSizes([
        { units: 6, fill: "2 oz" },
        { units: 6, fill: "1 oz" },
      ]),
    ).toBe(510_294);
    expect(weightOfSizes([{ units: 6, fill: "60 mL" }])).toBeNull();
  });
  it("takes from the library what the shelf hasn't got, and asks where both might be meant", () => {
    const library = [
      { ...meant("Tallow, rendered", "softButter"), library: "tallow" },
      { ...meant("Emu oil", "oil"), library: "emu" },
    ];
    const [tallow, shea, emu] = readScribbled("100 g tallow\n1 cup shea\n2 oz emu oil", SHELF, library);
    expect(tallow).toMatchObject({
      line: { material: "Tallow, rendered", entered: "100 g" },
      asks: [],
      remarks: [expect.stringContaining("the library has it")],
    });
    expect(shea).toMatchObject({ line: { material: SHEA }, remarks: [] });
    expect(emu).toMatchObject({ line: { material: "Emu oil" }, asks: [{ field: "entered" }] });
    const both = readScribbled("20 g lavender water", SHELF, [{ ...meant("Lavender water", "watery"), library: "lw" }])[0];
    expect(both?.as === "line" && [both.line.material, both.asks[0]?.choices.map((c) => c.say)]).toEqual(["Lavender water", undefined]);
  });
  it("says what each form of a cup would weigh", () => {
    const [line] = readScribbled("1/4 cup beeswax", SHELF);
    expect(line?.as === "line" && line.asks[0]?.choices.map((c) => c.say)).toEqual([
      "pellets, 28.4 g",
      "grated, 19.5 g",
      "block, 56.8 g",
      "melted, 50.9 g",
    ]);
  });
  it("survives anything: nothing thrown, and what it calls an amount is one", () => {
    const scraps = fc.constantFrom(
      "1/2",
      "½",
      "cup",
      "cups",
      "oz",
      "of",
      "(",
      ")",
      "-",
      ":",
      ",",
      "beeswax",
      "olive oil",
      "about",
      "1 to 2",
      "%",
      "parts",
      "0",
      "1e9",
      "…",
      "to",
      "melt",
      "\t",
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(scraps, { maxLength: 9 }).map((s) => s.join(" ")),
        ),
        (t) => {
          for (const s of readScribbled(t, SHELF))
            if (s.as === "line" && s.line.entered !== "" && s.asks.every((a) => a.field !== "entered"))
              expect([t, parseAmount(s.line.entered).ok]).toEqual([t, true]);
        },
      ),
    );
    expect(readScribbled("40 g olive oil\n".repeat(2000), SHELF)).toHaveLength(MOST_LINES);
    // Lines that are no lines, many of them: read through at a glance. (Looked at as lines they would take the better part of an hour.)
    for (const word of ["a", "oz ", "a-", "1 a"]) {
      const long = word.repeat(20_000 / word.length).trim();
      expect(readScribbled(`${long}\n`.repeat(400), SHELF).every((l) => l.as === "step" && l.text === long)).toBe(true);
    }
  });
});
