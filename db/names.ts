/** Names to choose from: materials with what is on hand of them, and the people and places the books already know. */
import type { KindId } from "#core/material/kinds";
import type { Base, Micros } from "#core/measure/exact";
import type { Day } from "#core/when";
import { sql, type SQL } from "drizzle-orm";
import type { Reads } from "./client.ts";
import { aNumber, aText, rowsOf } from "./columnsOf.ts";
import { giftOrder, lot, marketDay, material, offer, purchase } from "./schema.ts";

export interface MaterialName {
  name: string;
  kind: KindId;
  inci: string;
  botanical: string;
  onHand: Base;
  value: Micros;
  lots: number;
}

/** Every material that isn't put away, with what is on hand. */
export const materialNames = (db: Reads): Promise<MaterialName[]> =>
  rowsOf(
    db,
    {
      name: material.name,
      kind: material.kind,
      inci: material.inci,
      botanical: material.botanical,
      onHand: aNumber,
      value: lot.value,
      lots: aNumber,
    },
    sql`
    select m.name, m.kind, m.inci, m.botanical, coalesce(s.on_hand, 0) as "onHand", coalesce(s.value, 0) as value, coalesce(s.lots, 0) as lots
    from ${material} m left join (
      select material_id, sum(on_hand) as on_hand, sum(value) as value, count(*) as lots from ${lot} where on_hand > 0 and material_id is not null group by 1
    ) s on s.material_id = m.id where not m.retired order by m.name`,
  );

export interface KnownName {
  name: string;
  /** How often it is in the books, and when last. */
  times: number;
  last: Day;
}

/** As it was last written, whatever the case before; the newest first. */
const known = (db: Reads, from: SQL): Promise<KnownName[]> =>
  rowsOf(
    db,
    { name: aText, times: aNumber, last: aText },
    sql`
    select (array_agg(n.name order by n.day desc))[1] as name, count(*) as times, max(n.day)::text as last
    from (${from}) n where n.name <> '' group by lower(n.name) order by max(n.day) desc, 1 limit 2000`,
  );

export const supplierNames = (db: Reads): Promise<KnownName[]> =>
  known(db, sql`select supplier as name, day from ${purchase} union all select supplier, seen from ${offer}`);
export const customerNames = (db: Reads): Promise<KnownName[]> => known(db, sql`select customer as name, due as day from ${giftOrder}`);
export const marketNames = (db: Reads): Promise<KnownName[]> => known(db, sql`select name, day from ${marketDay}`);
