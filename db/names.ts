/** Names to choose from: materials with what is on hand of them, for the fields that choose one. */
import type { KindId } from "#core/material/kinds";
import type { Base, Micros } from "#core/measure/exact";
import { sql } from "drizzle-orm";
import type { Reads } from "./client.ts";
import { readNumber, rowsOf } from "./columnsOf.ts";
import { lot, material } from "./schema.ts";

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
      onHand: readNumber,
      value: lot.value,
      lots: readNumber,
    },
    sql`
    select m.name, m.kind, m.inci, m.botanical, coalesce(s.on_hand, 0) as "onHand", coalesce(s.value, 0) as value, coalesce(s.lots, 0) as lots
    from ${material} m left join (
      select material_id, sum(on_hand) as on_hand, sum(value) as value, count(*) as lots from ${lot} where on_hand > 0 and material_id is not null group by 1
    ) s on s.material_id = m.id where not m.retired order by m.name`,
  );
