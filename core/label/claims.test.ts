/** Names that claim too much are told from names that only sound alike. Common practice, no source. */
import { expect, it } from "vitest";
import { claimsIn, sayClaims } from "./claims.ts";

it.each([
  ["SPF 15 lip balm", ["SPF 15"]],
  ["Balm, heals", ["heals"]],
  ["Salve for eczema", ["eczema"]],
  ["Healing sunscreen", ["Healing", "sunscreen"]],
  ["Pain relief rub", ["Pain relief"]],
  ["Midge-repellent bar", ["Midge-repellent"]],
  ["Antibacterial foot balm", ["Antibacterial"]],
  ["Anti-itch stick", ["Anti-itch"]],
  ["Remedy no. 4", ["Remedy"]],
  ["Athlete's foot salve", ["Athlete's foot"]],
])("%s", (name, words) => {
  expect(claimsIn(name).map((c) => c.word)).toEqual(words);
  expect(sayClaims(name)).toContain("look at the rules");
});

it.each([
  "Heather and honey balm",
  "Curly mint foot butter",
  "Secure lid tin",
  "Sunflower hand balm",
  "Sunny day bar",
  "Blackcurrant lip balm",
  "Treacle tart lip balm",
  "Burnt sugar butter",
  "Spruce tip salve",
  "Ticking clock sampler",
  "Painted lady bar",
])("%s is only a name", (name) => expect([claimsIn(name), sayClaims(name)]).toEqual([[], null]));
