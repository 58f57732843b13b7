/** Materials, offers, scans and harvests, in contests. */
import { addMaterials } from "#db/listsIn/materials";
import { mg, micros } from "#core/measure/exact";
import { keepScan, dropScan } from "#db/attachments/attachments";
import type { Db } from "#db/client";
import { attachment, offer } from "#db/schema";
import { dropOffer, noteOffer } from "#db/shelf/buying";
import { finishHarvest, weighHarvest } from "#db/shelf/harvests";
import { addFromLibrary, deleteMaterial, retireMaterial, saveMaterial } from "#db/shelf/keepMaterial";
import { DAY } from "#test/db/jar";
import { PICTURE } from "#test/db/picture";
import { desc } from "drizzle-orm";
import { atOnce, euro, fresh, idIn, inTurn, now, picking, type Contestant, type World } from "../world.ts";

const offered = (db: Db, w: World) =>
  noteOffer(
    db,
    { materialId: w.ids.oil, supplier: "Mill", packSize: "1 kg", qty: mg(1_000_000), price: euro(9), postage: micros(0), seen: DAY },
    now(),
  );
const scan = (db: Db, w: World) => keepScan(db, { purchaseId: w.ids.receipt, file: { name: fresh("scan"), bytes: PICTURE } }, now());

/** In another order in every window: what is ticked first is nobody's business. */
const KEYS = ["sunflower", "olive", "calendula", "chamomile", "plantain", "comfrey"];
const ticked = (): string[] => inTurn(KEYS, [...KEYS].reverse());

export const SHELF = {
  // What everything is made of keeps another while: its lots and its recipes follow.
  saveMaterial: atOnce((db, w) =>
    saveMaterial(db, { id: w.ids.wax, name: "Wax", kind: "wax", densities: { liquid: 920 }, keepsSealed: inTurn(12, 18, 24) }, now()),
  ),
  retire: atOnce((db, w) => retireMaterial(db, { id: w.ids.spare, retired: inTurn(true, false) }, now())),
  deleteMaterial: {
    ready: async (db) => {
      const id = idIn(await saveMaterial(db, { name: fresh("Oil"), kind: "oil", densities: {} }, now()));
      return (at) => deleteMaterial(at, { id }, now());
    },
  },
  addMaterials: atOnce((db) =>
    addMaterials(
      db,
      {
        materials: [1, 2].map(() => ({
          ...{ name: fresh("Wax"), libraryKey: null, kind: "wax" as const },
          ...{ brimMl: null, keepsSealed: 24, allergen: "", note: "" },
        })),
      },
      now(),
    ),
  ),
  library: atOnce((db) => addFromLibrary(db, { keys: ticked() }, now())),
  keepScan: atOnce(scan),
  dropScan: {
    ready: async (db, w) => {
      await scan(db, w);
      const [row] = await db.select({ id: attachment.id }).from(attachment).orderBy(desc(attachment.id)).limit(1);
      return (at) => dropScan(at, { purchaseId: w.ids.receipt, id: row!.id }, now());
    },
  },
  offer: atOnce(offered),
  dropOffer: {
    ready: async (db, w) => {
      await offered(db, w);
      const [row] = await db.select({ id: offer.id }).from(offer).orderBy(desc(offer.id)).limit(1);
      return (at) => dropOffer(at, { materialId: w.ids.oil, id: row!.id }, now());
    },
  },
  pick: atOnce(picking),
  weighHarvest: atOnce((db, w) =>
    weighHarvest(db, { harvestId: w.ids.harvest, day: DAY, weight: mg(400_000), celsius: null, note: "" }, now()),
  ),
  harvest: {
    ready: async (db, w) => {
      const harvestId = idIn(await picking(db, w));
      return (at) => finishHarvest(at, { harvestId, dry: mg(90_000), snaps: true, minutes: 20, valuedBy: "hours", market: null }, now());
    },
  },
} as const satisfies Record<string, Contestant>;
