/** The lines of some market days, for the file they are saved as. */
import { listMarketDays } from "#db/markets/markets";
import { idsAsked } from "../forms/ids.ts";
import { db } from "../server/workshop.server.ts";
import type { Route } from "./+types/lines";

const linesOfDays = async (ids: readonly number[]) =>
  (await listMarketDays(db(), ids)).flatMap(({ name: market, day, closedActId, lines, sales, id }) => {
    const head = { of: id, market, day, closed: closedActId !== null };
    return [
      ...lines.map(({ name, label, number, taken, sold, given, damaged, price, gone, costKnown }) => ({
        ...head,
        ...{ name, label, number, taken, sold, given, damaged, price, gone: costKnown === "none" ? null : gone, takings: sold * price },
      })),
      // Before the books there were no lots.
      ...sales.map(({ name, units, takings }) => ({
        ...head,
        ...{ name, label: "", number: "", taken: 0, sold: units, given: 0, damaged: 0, price: 0, gone: null, takings },
      })),
    ];
  });

export type LineOfDay = Awaited<ReturnType<typeof linesOfDays>>[number];

export const loader = async ({ request }: Route.LoaderArgs) => Response.json(await linesOfDays(idsAsked(request)));
