/** One reading of a question put to the reckon bar, and its answer. */

export interface Reading {
  say: string;
  steps: string[];
  places: { to: string; name: string }[];
  problem?: boolean;
}

export const cant = (say: string): Reading => ({ say, steps: [], places: [], problem: true });

/** What the bar understands, as a maker would type it. */
export const EXAMPLES = [
  "2 1/2 cups olive oil in g",
  "1/4 cup beeswax pellets",
  "30 drops lavender in 400 g",
  "60 g beeswax + 1 cup olive oil into 16 pots",
  "hand balm for 20 tins",
  "how many 2 oz tins from 500 g",
  "cost 60 x hand balm",
  "130 F in C",
  "a third of 800 g",
  "set out 24 hand balm",
  "who bought HB261125-1",
] as const;
