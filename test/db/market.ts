/** A market day to plan or close, for tests. */
import type { MarketIn } from "#db/markets/markets";
import { euro } from "./fresh.ts";
import { DAY } from "./jar.ts";

/** A day at a fair with a stall fee of five and nothing along, unless said otherwise. */
export const fairOf = (over: Partial<MarketIn> = {}): MarketIn => ({
  name: "Fair",
  day: DAY,
  stallFee: euro(5),
  travel: euro(0),
  byCard: euro(0),
  cardFeeBp: 0,
  minutes: 60,
  note: "",
  lines: [],
  ...over,
});
