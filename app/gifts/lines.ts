/** What is in some gift orders, for the file they are saved as: goods, wrapping, and what was added or taken off the price. */
import { listGiftOrders } from "#db/gifts/gifts";
import { idsAsked } from "../forms/ids.ts";
import { db } from "../server/workshop.server.ts";
import type { Route } from "./+types/lines";

const linesOfOrders = async (ids: readonly number[]) =>
  (await listGiftOrders(db(), ids)).flatMap(({ id: of, customer, due, packedActId, items, wrapping, extra }) => {
    const head = { of, customer, due, packed: packedActId !== null };
    return [
      ...items.map(({ name, units, price }) => ({ ...head, what: "product", name, units, price })),
      ...wrapping.map(({ name, pieces }) => ({ ...head, what: "wrapping", name, units: pieces, price: null })),
      ...(extra === 0 ? [] : [{ ...head, what: "charge", name: "asked for wrapping", units: 1, price: extra }]),
    ];
  });

export type LineOfOrder = Awaited<ReturnType<typeof linesOfOrders>>[number];

export const loader = async ({ request }: Route.LoaderArgs) => Response.json(await linesOfOrders(idsAsked(request)));
