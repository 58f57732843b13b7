/** How far the first hour is in a workshop of one's own: what is in the books. */
import { stepsOf, type Begun, type Step, type StepId } from "#core/settings/firstSteps";
import { COUNTED_KINDS } from "#core/material/kinds";
import { sql } from "drizzle-orm";
import type { ActOptions } from "../act/define.ts";
import type { Db, Reads } from "../client.ts";
import { readBoolean, readNumber, readText, orNone, rowsOf } from "../columnsOf.ts";
import { cachedUntilWrite } from "../cache.ts";
import { batch, lot, material, recipe, price } from "../schema.ts";
import { readSettings, saveSettings } from "./settings.ts";

const counted = sql.raw(COUNTED_KINDS.map((k) => `'${k}'`).join(", "));

async function begun(db: Reads): Promise<Begun> {
  const [found] = await rowsOf(
    db,
    { materials: readBoolean, containers: readBoolean, opening: readBoolean, recipe: readBoolean, batch: readBoolean, price: readBoolean },
    sql`select exists (select 1 from ${material} where kind not in (${counted})) as materials,
      exists (select 1 from ${material} where kind in (${counted})) as containers, exists (select 1 from ${lot} where material_id is not null) as opening,
      exists (select 1 from ${recipe}) as recipe, exists (select 1 from ${batch} where poured_act_id is not null) as batch,
      exists (select 1 from ${price} x join standing_act sa on sa.id = x.act_id) as price`,
  );
  return found!;
}

/** How much there is by now of what the steps lead to. */
export async function achieved(db: Reads) {
  const [found] = await rowsOf(
    db,
    {
      materials: readNumber,
      containers: readNumber,
      lots: readNumber,
      recipes: readNumber,
      batches: readNumber,
      prices: readNumber,
      tin: orNone(readText),
    },
    sql`select (select count(*)::int from ${material} where kind not in (${counted})) as materials,
      (select count(*)::int from ${material} where kind in (${counted})) as containers,
      (select count(*)::int from ${lot} where material_id is not null and on_hand > 0) as lots, (select count(*)::int from ${recipe}) as recipes,
      (select count(*)::int from ${batch} where poured_act_id is not null) as batches,
      (select count(distinct x.product_id)::int from ${price} x join standing_act sa on sa.id = x.act_id) as prices,
      (select number from ${lot} where product_id is not null and on_hand > 0 order by id desc limit 1) as tin`,
  );
  return found!;
}
export type Achieved = Awaited<ReturnType<typeof achieved>>;

/** The steps with how far each is. */
export const firstSteps = (db: Reads): Promise<Step[]> =>
  cachedUntilWrite(db, "first steps", "", async () => stepsOf((await readSettings(db)).firstSteps, await begun(db)));

/** Records that a step was done, or skipped. */
export async function passStep(db: Db, id: StepId, doing: ActOptions) {
  const { firstSteps: now } = await readSettings(db);
  return saveSettings(db, { firstSteps: { ...now, passed: [...new Set([...now.passed, id])] } }, doing);
}
