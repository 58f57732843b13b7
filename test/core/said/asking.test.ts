/** What the reckon bar answers. */
import { it } from "vitest";
import type { MassFacts } from "#core/measure/mass";
import { parseAmount, type Amount } from "#core/measure/parse";
import { convert, strength } from "#core/reckon/answer";
import { plainAnswers } from "#core/reckon/plain";
import { readQuestions } from "#core/reckon/question";
import { each, expectWording } from "./expectWording.ts";

const read = (text: string): Amount => {
  const amount = parseAmount(text, "g");
  if (!amount.ok) throw new Error(amount.problem.say);
  return amount.value;
};
const LAVENDER: MassFacts = { name: "lavender", form: "liquid", densities: { liquid: 885 }, dropsPerMl: 25 };
const SHEA: MassFacts = { name: "shea", form: "block", densities: {} };

it("answers", () =>
  expectWording("workroom/answers", [
    ...(["60 drops", "1 drop", "1 cup", "1/3 cup", "1 g", "2 oz", "0.3 tsp", "1 lb", "0 g", "5 %"] as const).flatMap((t) =>
      (["g", "oz", "ml", "drop", "cup", "tsp", "percent", "part"] as const).map(
        (to) => [`${t} of lavender in ${to}`, convert(read(t), to, LAVENDER)] as const,
      ),
    ),
    ...(["1 cup", "1 g", "20 drops"] as const).flatMap((t) =>
      (["ml", "g", "cup", "drop"] as const).map((to) => [`${t} of shea in ${to}`, convert(read(t), to, SHEA)] as const),
    ),
    ["drops as usual", convert(read("40 drops"), "ml", { ...LAVENDER, dropsPerMl: null })],
    ...(
      [
        ["30 drops", "400 g"],
        ["1 drop", "400 g"],
        ["1 g", "1 g"],
        ["2 g", "1 g"],
        ["0 g", "1 g"],
        ["1 g", "1 cup"],
        ["10 g", "1 kg"],
      ] as const
    ).map(([a, w]) => [`${a} in ${w}`, strength(read(a), LAVENDER, read(w))] as const),
    ...each(
      [
        "",
        " lavender ",
        "30 drops lavender in 400 g",
        "30 drops of lavender in 400 g",
        "2 cups olive oil in g",
        "2 cups olive oil to floz",
        "2 cups oil of olive as oz",
        "2 cups in g",
        "in g",
        "cost 60 × hand balm",
        "cost 60 hand balm",
        "Cost  60x  hand balm ",
        "cost 60*balm",
        "cost60 balm",
        "a cost 60 balm",
        "balm cost 60",
        "hand balm in tins",
        "1 1/2 cups very long name of a thing in g",
        "2 lb 3 oz of shea in kg",
        "R26001-01",
        "30  drops   lavender   in 400 g",
        "30 drops lavender in 400 g in 2",
        "30 drops lavender in nothing",
      ],
      readQuestions,
    ),
    ...each(
      [
        "1/4 cup beeswax pellets",
        "1/4 cup beeswax, grated",
        "2 oz shaved cocoa butter in g",
        "2 tbsp pellets",
        "hand balm for 20 tins",
        "hand balm for 20",
        "hand balm for 2 kg",
        "hand balm for Anna",
        "how many 2 oz tins from 500 g",
        "how many 60 g jars does 2 kg fill?",
        "how many from 500 g",
        "who bought SB260606-1",
        "where did sb260606-1 go?",
        "who knows",
        "receive",
        "receive olive oil",
        "set out 24 hand balm",
        "set out 24 x hand balm",
        "make hand balm",
        "count beeswax",
        "fill a jar of calendula",
        "order for the choir",
        "what does hand balm cost?",
        "what would 12 hand balm cost",
      ],
      readQuestions,
    ),
  ]));
it("what needs no book: sums, temperatures, units", () =>
  expectWording("workroom/plain", [
    ...each(
      [
        "1 lb + 200 g",
        "half of 2 1/2 cups",
        "half a cup",
        "a third of 800 g",
        "a third of a cup",
        "two thirds of 900 g",
        "a quarter of 3 cups",
        "three quarters of 1 lb",
        "double 3/4 cup",
        "twice 40 drops",
        "triple 1 1/2 tbsp",
        "20 % of 450 g",
        "450 g - 10 %",
        "450 g + 10 %",
        "15 % off 12",
        "12.50 x 3",
        "12,50 × 3",
        "800 g / 12",
        "800 g ÷ 60 g",
        "1 kg / 1 lb",
        "(1 lb + 4 oz) / 3",
        "3 * (2 + 4)",
        "2 + 3 * 4",
        "5 % + 3 %",
        "1 cup + 2 tbsp",
        "1 cup - 1 cup",
        "1 cup + 200 g",
        "2 g * 3 g",
        "12 / 3 g",
        "100 / 0",
        "1 kg - 2 kg",
        "2 + g",
        "2 +",
        "(2 + 3",
        "7",
        "130 F",
        "130 °F in C",
        "54 C",
        "54.4 celsius to fahrenheit",
        "-5 c",
        "0 deg C in F",
        "180f in f",
        "4 oz in g",
        "4 oz in mL",
        "2 oz",
        "1 lb 4 oz in g",
        "500 g in oz",
        "2 cups in mL",
        "1 L in cups",
        "3 tsp in tbsp",
        "500 g",
        "1/2 cup",
        "500 g in mL",
        "40 drops",
        "40 drops in mL",
        "3 pcs in g",
        "2 parts",
        "olive oil",
        "",
      ],
      plainAnswers,
    ),
  ]));
