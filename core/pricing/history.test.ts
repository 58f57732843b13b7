/** A product's prices as they changed. */
import { expect, it } from "vitest";
import { micros } from "../measure/exact.ts";
import { priceSteps, type ChosenPrice } from "./history.ts";

const at = (actId: number, day: string, channel: ChosenPrice["channel"], euro: number): ChosenPrice => ({
  ...{ actId, day, channel },
  price: micros(euro * 1e6),
});

it("only what changed is told, newest first, what one act changed together", () => {
  const chosen = [
    at(3, "2026-03-01", "market", 10),
    at(3, "2026-03-01", "wholesale", 5),
    // Saved again with another market price: wholesale stayed.
    at(7, "2026-06-01", "market", 11),
    at(7, "2026-06-01", "wholesale", 5),
    // Saved as it was.
    at(8, "2026-06-02", "market", 11),
    at(9, "2026-09-01", "market", 10),
  ];
  expect(priceSteps(chosen)).toEqual([
    { actId: 9, day: "2026-09-01", prices: { market: 10_000_000 } },
    { actId: 7, day: "2026-06-01", prices: { market: 11_000_000 } },
    { actId: 3, day: "2026-03-01", prices: { market: 10_000_000, wholesale: 5_000_000 } },
  ]);
  expect(priceSteps([])).toEqual([]);
});
