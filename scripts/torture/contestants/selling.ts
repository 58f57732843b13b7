/** Prices, markets, orders, whom the books name, and the workshop's own choices, in contests. */
import { micros } from "#core/measure/exact";
import type { Db } from "#db/client";
import { addContacts, deleteContact, retireContact } from "#db/contacts/contacts";
import { addOrders } from "#db/listsIn/orders";
import { saveGiftOrder } from "#db/gifts/gifts";
import { packGiftOrder } from "#db/gifts/pack";
import { closeMarketDay, saveMarketDay, type MarketIn } from "#db/markets/markets";
import { addPastDays } from "#db/listsIn/pastDays";
import { choosePrices, choosePricesOfList } from "#db/prices/prices";
import { saveSettings } from "#db/settings/settings";
import { DAY } from "#test/db/jar";
import { aGuest, atOnce, euro, fresh, idIn, inTurn, now, type Contestant, type World } from "../world.ts";

export const dayOf = (w: World, sold: number, id?: number): MarketIn => ({
  id,
  name: "Market",
  day: DAY,
  stallFee: euro(10),
  travel: micros(0),
  byCard: micros(0),
  cardFeeBp: 100,
  minutes: 60,
  note: "",
  // The other way round half of the time: the order on a sheet is nobody's business.
  lines: ((id ?? 0) % 2 ? [...w.lots.made].reverse() : w.lots.made).map((lotId) => ({
    lotId,
    taken: 1,
    sold,
    given: 0,
    damaged: 0,
    price: euro(9),
  })),
});
const planned = (db: Db, w: World) => saveMarketDay(db, dayOf(w, 0), now());

const ordered = (db: Db, w: World) =>
  saveGiftOrder(
    db,
    {
      customer: "Guest",
      due: DAY,
      extra: micros(0),
      discountBp: 0,
      wrapMinutes: 0,
      note: "",
      items: [{ productId: w.ids.product, units: 1, price: euro(9) }],
      wrapping: [{ materialId: w.ids.box, pieces: 1 }],
    },
    now(),
  );

export const SELLING = {
  price: atOnce((db, w) => choosePrices(db, { productId: w.ids.product, own: null, prices: { market: euro(9) } }, now())),
  listPrices: atOnce((db, w) =>
    choosePricesOfList(db, { lines: [{ productId: w.ids.product, prices: { online: euro(inTurn(8, 9)) } }] }, now()),
  ),
  pastDays: atOnce((db, w) =>
    addPastDays(
      db,
      {
        days: [
          {
            ...{ market: fresh("Fair"), day: DAY, stallFee: euro(10), travel: micros(0), minutes: 60, note: "" },
            sales: [{ productId: w.ids.product, name: "Balm", units: 2, takings: euro(18) }],
          },
        ],
      },
      now(),
    ),
  ),
  addOrders: atOnce((db, w) =>
    addOrders(
      db,
      {
        orders: [null, DAY].map((handedOver) => ({
          ...{ customer: fresh("Guest"), due: DAY, note: "", handedOver },
          items: [{ productId: w.ids.product, units: 1, price: euro(9) }],
        })),
      },
      now(),
    ),
  ),
  saveMarket: {
    ready: async (db, w) => {
      const id = idIn(await planned(db, w));
      return (at) => saveMarketDay(at, dayOf(w, 0, id), now());
    },
  },
  closeMarket: {
    ready: async (db, w) => {
      const id = idIn(await planned(db, w));
      return (at) => closeMarketDay(at, dayOf(w, 1, id), now());
    },
  },
  saveGift: atOnce(ordered),
  packOrder: {
    ready: async (db, w) => {
      const id = idIn(await ordered(db, w));
      return (at) => packGiftOrder(at, { id, only: [] }, now());
    },
  },
  saveContact: atOnce(aGuest),
  addContacts: atOnce((db) =>
    addContacts(db, { kind: "supplier", people: [1, 2].map(() => ({ name: fresh("Mill"), reach: "", note: "" })) }, now()),
  ),
  retireContact: atOnce((db, w) => retireContact(db, { id: w.ids.guest, retired: inTurn(true, false) }, now())),
  deleteContact: {
    ready: async (db) => {
      const id = idIn(await aGuest(db));
      return (at) => deleteContact(at, { id }, now());
    },
  },
  settings: atOnce((db) => saveSettings(db, { hourly: euro(inTurn(10, 12, 14)) }, now())),
} as const satisfies Record<string, Contestant>;
