/** The shelf at a glance: its boards, and the materials on one of them. */
import type { KindId } from "#core/material/kinds";
import type { Base, Micros } from "#core/measure/exact";
import { SOON_DAYS } from "#core/stock/lots";
import { addDays, type Day } from "#core/when";
import { sql, type SQL } from "drizzle-orm";
import type { Db, Reads } from "../client.ts";
import { readBoolean, readNumber, sqlNumber, rowsOf } from "../columnsOf.ts";
import { cachedUntilWrite } from "../cache.ts";
import { anywhere } from "../pieces.ts";
import { runPrepared } from "../prepared.ts";
import { lot, material } from "../schema.ts";
import { stockLevels } from "./low.ts";

export interface Board {
  kind: KindId;
  materials: number;
  worth: Micros;
  low: number;
  /** Lots to use soon or past their day. */
  soon: number;
}

/** A line for each kind that has materials, whatever is on hand of them. */
export const shelfBoards = (db: Db, today: Day): Promise<Board[]> =>
  cachedUntilWrite(db, "shelf boards", today, () => countBoards(db, today));

function countBoards(db: Reads, today: Day): Promise<Board[]> {
  return runPrepared(db, "shelf_boards", { today, soon: addDays(today, SOON_DAYS) }, (at) =>
    db
      .select({
        kind: sql`s.kind`.mapWith(material.kind),
        materials: sqlNumber(sql`count(*)`),
        worth: sql`sum(s.value)`.mapWith(lot.value),
        low: sqlNumber(sql`count(*) filter (where s.usable + s.coming < s.point)`),
        soon: sqlNumber(sql`coalesce(sum(b.soon), 0)`),
      })
      .from(
        sql`${stockLevels(at.today)} s
        left join (select material_id, count(*) as soon from lot where on_hand > 0 and material_id is not null and hold_reason is null and best_before <= ${at.soon} group by 1) b
          on b.material_id = s.id`,
      )
      .groupBy(sql`s.kind`),
  );
}

export interface OnShelf {
  id: number;
  name: string;
  kind: KindId;
  onHand: Base;
  value: Micros;
  coming: Base;
  low: boolean;
}

/** Materials with what is on hand: of one board, or whose name contains something, or all. */
export async function onShelf(db: Reads, today: Day, only: { kind?: KindId; find?: string }, limit: number): Promise<OnShelf[]> {
  const where: SQL = only.find ? sql`where s.name ilike ${anywhere(only.find)}` : only.kind ? sql`where s.kind = ${only.kind}` : sql``;
  const shape = {
    id: material.id,
    name: material.name,
    kind: material.kind,
    onHand: readNumber,
    value: lot.value,
    coming: readNumber,
    low: readBoolean,
  };
  return rowsOf(
    db,
    shape,
    sql`
    select s.id, s.name, s.kind, s.on_hand as "onHand", s.value, s.coming, coalesce(s.usable + s.coming < s.point, false) as low
    from ${stockLevels(today)} s ${where} order by s.name limit ${limit}`,
  );
}
