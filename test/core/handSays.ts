/**
 * Recipes as makers write them, in parts by weight, and what a finger says of each in a kitchen of 20 °C, and for the kind it is made as.
 * From memory, and by the same hand that set the model's bounds: they hold the model to what makers say, and prove nothing about the
 * makers. /
 */
import { mixOf, type Mix, type MixLine } from "#core/firmness/model";
import { setsBy, type Sets } from "#core/firmness/solids";
import { libraryEntry } from "#core/material/library";
import { mg } from "#core/measure/exact";
import type { Feel } from "#core/firmness/words";
import type { RecipeType } from "#core/recipe/types";
import type { Fit } from "#core/recipe/firmnessTargets";

const KEYS: Readonly<Record<string, string>> = {
  ...{ wax: "beeswax-yellow", oil: "olive", coconut: "coconut-refined", shea: "shea-refined", cocoa: "cocoa-raw" },
  ...{ tallow: "tallow-beef", starch: "arrowroot", soy: "soy-wax" },
};

/** How something of the library sets, by its key or its name here. */
export function setsOf(name: string): Sets {
  const key = KEYS[name] ?? name;
  const e = libraryEntry(key)!;
  return setsBy({ kind: e.kind, libraryKey: key, meltFrom: e.melts?.[0] ?? null, meltTo: e.melts?.[1] ?? null, makeup: [] });
}

/** A pot by parts, ten grams each. @example handPot("8 coconut 8 mango 6.5 wax").length // 3 */
export const handPot = (recipe: string): MixLine[] =>
  [...recipe.matchAll(/([\d.]+) ([\w-]+)/g)].map(([, n, name]) => ({ weight: mg(Math.round(Number(n) * 10_000)), sets: setsOf(name!) }));
export const handMix = (recipe: string): Mix => mixOf(handPot(recipe));

export type HandSays = readonly [recipe: string, feel: Feel, fit: Fit];

export const HAND_SAYS: Readonly<Record<RecipeType, readonly HandSays[]>> = {
  salve: [
    ["3 wax 97 oil", "slumps", "soft"],
    ["4 wax 96 oil", "verySoft", "soft"],
    ["6 wax 94 oil", "verySoft", "soft"],
    ["8.5 wax 91.5 oil", "scoops", "fit"],
    ["10 wax 90 oil", "scoops", "fit"],
    ["12 wax 88 oil", "scoops", "fit"],
    ["14 wax 100 oil", "scoops", "fit"],
    ["28.35 wax 216 oil", "scoops", "fit"],
    ["16 wax 84 oil", "firm", "fit"],
    ["20 wax 80 oil", "firm", "hard"],
    ["25 wax 75 oil", "twists", "hard"],
    ["7 candelilla 93 oil", "scoops", "fit"],
    ["12 candelilla 88 oil", "firm", "hard"],
    ["6 carnauba 94 oil", "scoops", "fit"],
    ["12 soy 88 oil", "verySoft", "soft"],
    ["10 wax 10 shea 80 oil", "scoops", "fit"],
    ["10 wax 20 coconut 70 oil", "scoops", "fit"],
    ["12 wax 30 coconut 58 oil", "scoops", "fit"],
    ["8 wax 8 lanolin 84 oil", "scoops", "fit"],
    ["10 wax 5 starch 85 oil", "scoops", "fit"],
    ["11 wax 15 castor 74 oil", "scoops", "fit"],
    ["47 tallow 6 wax 47 oil", "scoops", "fit"],
    ["30 wax 20 shea 50 oil", "twists", "hard"],
  ],
  balm: [
    ["10 wax 10 shea 80 oil", "scoops", "fit"],
    ["12 wax 20 shea 68 oil", "scoops", "fit"],
    ["15 wax 20 mango 65 oil", "firm", "fit"],
    ["18 wax 25 shea 57 oil", "firm", "fit"],
    ["20 wax 20 cocoa 60 oil", "twists", "fit"],
    ["25 wax 25 shea 50 oil", "twists", "hard"],
    ["6 wax 30 shea 64 oil", "scoops", "fit"],
    ["8 wax 40 shea 20 coconut 32 oil", "scoops", "fit"],
    ["15 wax 15 cocoa 10 lanolin 60 oil", "firm", "fit"],
    ["12 candelilla 20 shea 68 oil", "firm", "fit"],
    ["100 tallow", "firm", "fit"],
    ["90 tallow 10 oil", "scoops", "fit"],
    ["75 tallow 25 oil", "scoops", "fit"],
    ["50 tallow 50 oil", "verySoft", "soft"],
    ["60 tallow 10 wax 30 oil", "scoops", "fit"],
    ["50 shea 50 oil", "verySoft", "soft"],
    ["80 shea 20 coconut", "scoops", "fit"],
    ["100 shea", "firm", "fit"],
    ["50 lanolin 10 wax 40 oil", "firm", "fit"],
    ["5 wax 95 oil", "verySoft", "soft"],
  ],
  lipBalm: [
    ["20 wax 25 coconut 15 shea 40 oil", "twists", "fit"],
    ["20 wax 80 oil", "firm", "fit"],
    ["25 wax 75 oil", "twists", "fit"],
    ["25 wax 25 coconut 20 cocoa 30 oil", "twists", "fit"],
    ["1 wax 0.5 coconut 0.5 shea 2.5 oil", "twists", "fit"],
    ["1 wax 0.5 coconut 0.5 shea 1.5 oil", "twists", "fit"],
    ["10 candelilla 30 coconut 25 shea 35 oil", "firm", "fit"],
    ["15 candelilla 30 coconut 20 cocoa 35 oil", "twists", "fit"],
    ["22 wax 30 shea 20 cocoa 28 castor", "twists", "fit"],
    ["18 wax 40 cocoa 42 oil", "twists", "fit"],
    ["25 wax 25 lanolin 50 castor", "twists", "fit"],
    ["24 wax 36 coconut 40 oil", "twists", "fit"],
    ["15 wax 85 oil", "firm", "soft"],
    ["12 wax 40 coconut 48 oil", "scoops", "soft"],
    ["8 carnauba 20 coconut 20 shea 52 oil", "scoops", "soft"],
    ["1 wax 1 coconut 1 shea", "bar", "hard"],
    ["35 wax 65 oil", "bar", "hard"],
    ["40 wax 30 coconut 30 oil", "bar", "hard"],
  ],
  lotionBar: [
    ["8 coconut 8 mango 6.5 wax", "bar", "fit"],
    ["8 coconut 8 shea 6.5 wax", "bar", "fit"],
    ["8 coconut 8 mango 8 wax", "bar", "fit"],
    ["8 coconut 8 mango 5.5 wax", "twists", "soft"],
    ["28 wax 30 mango 22 coconut 20 oil", "bar", "fit"],
    ["30 wax 30 mango 25 coconut 15 oil", "bar", "fit"],
    ["30 wax 40 cocoa 30 oil", "bar", "fit"],
    ["25 wax 50 cocoa 25 oil", "bar", "fit"],
    ["1 wax 1 cocoa 1 oil", "bar", "fit"],
    ["1 wax 1 coconut 1 shea", "bar", "fit"],
    ["33 wax 33 shea 34 oil", "bar", "fit"],
    ["28 wax 50 shea 22 oil", "bar", "fit"],
    ["25 wax 25 cocoa 25 shea 25 coconut", "bar", "fit"],
    ["30 wax 35 kokum 35 oil", "bar", "fit"],
    ["22 wax 40 kokum 38 oil", "bar", "fit"],
    ["20 candelilla 30 cocoa 25 coconut 25 oil", "bar", "fit"],
    ["25 candelilla 30 cocoa 45 oil", "bar", "hard"],
    ["35 wax 30 cocoa 35 oil", "bar", "hard"],
    ["40 wax 30 coconut 30 oil", "bar", "hard"],
    ["45 wax 25 shea 30 oil", "bar", "hard"],
    ["20 wax 30 mango 30 coconut 20 oil", "twists", "soft"],
    ["15 wax 40 cocoa 45 oil", "twists", "soft"],
    ["80 cocoa 20 shea", "bar", "soft"],
  ],
  massageBar: [
    ["80 cocoa 20 shea", "bar", "fit"],
    ["70 cocoa 20 shea 10 oil", "bar", "fit"],
    ["60 cocoa 40 shea", "bar", "fit"],
    ["60 cocoa 10 wax 30 oil", "bar", "fit"],
    ["50 cocoa 30 mango 5 wax 15 oil", "bar", "fit"],
    ["60 kokum 40 oil", "twists", "fit"],
    ["50 cocoa 30 coconut 20 oil", "firm", "soft"],
    ["80 shea 5 wax 15 oil", "scoops", "soft"],
    ["30 wax 40 cocoa 30 oil", "bar", "hard"],
  ],
  bodyButter: [
    ["2 shea 1 jojoba 1 coconut", "verySoft", "fit"],
    ["75 shea 25 oil", "scoops", "fit"],
    ["80 shea 20 oil", "scoops", "fit"],
    ["50 shea 25 coconut 20 oil 5 starch", "verySoft", "fit"],
    ["60 mango 20 coconut 20 oil", "scoops", "fit"],
    ["20 cocoa 50 shea 30 oil", "scoops", "fit"],
    ["30 cocoa 30 coconut 40 oil", "verySoft", "fit"],
    ["70 tallow 30 oil", "scoops", "fit"],
    ["5 wax 60 shea 35 oil", "scoops", "fit"],
    ["1 cocoa 1 shea 1 coconut", "firm", "hard"],
    ["50 cocoa 25 shea 25 oil", "twists", "hard"],
    ["15 wax 55 shea 30 oil", "firm", "hard"],
    ["100 shea", "firm", "hard"],
    ["30 shea 70 oil", "slumps", "soft"],
    ["20 coconut 80 oil", "pours", "soft"],
  ],
};
