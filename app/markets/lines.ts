/** The lines of some market days, for the file they are saved as. */
import { listMarketDays } from "#db/markets/markets";
import { idsAsked } from "../forms/ids.ts";
import { db } from "../server/workshop.server.ts";
import type { Route } from "./+types/lines";

const linesOfDays = async (ids: readonly number[]) =>
  (await listMarketDays(db(), ids)).flatMap(({ name: market, day, closedActId, lines, id }) =>
    lines.map(({ name, label, number, taken, sold, given, damaged, price, gone }) => ({
      ...{ of: id, market, day, closed: closedActId !== null },
      ...{ name, label, number, taken, sold, given, damaged, price, gone },
    })),
  );

export type LineOfDay = Awaited<ReturnType<typeof linesOfDays>>[number];

export const loader = async ({ request }: Route.LoaderArgs) => Response.json(await linesOfDays(idsAsked(request)));
