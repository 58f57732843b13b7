/**
 * Whose a database is: empty, Zelbin's, or somebody else's. Zelbin works only in a schema that it made and marked itself, and drops nothing
 * else, whatever address it is given.
 */
import { getTableName, is, sql } from "drizzle-orm";
import { PgTable } from "drizzle-orm/pg-core";
import { readBoolean, readText, rowsOf } from "./columnsOf.ts";
import type { Db, Reads, Tx } from "./client.ts";
import * as schema from "./schema.ts";
import { OURS } from "./schema/ours.ts";

/** Where the steps that were taken are written down; the table's name is the migrator's own. */
export const STEPS_TAKEN = { schema: OURS, table: "__drizzle_migrations" } as const;
/** Views that the migrations make. */
const VIEWS = ["lot_link", "movement_use", "standing_act"];
const MARK = "Made and kept by Zelbin.";

/** Why a database isn't opened. */
export class NotOurs extends Error {
  constructor(name: string, why: string) {
    super(
      `The database ${name} ${why}. Zelbin needs a database to itself: make an empty one and name that in DATABASE_URL. Nothing was changed.`,
    );
  }
}

/** Tables, views, functions and types in any schema but PostgreSQL's own; what an extension brought counts for nothing. */
async function whatElse(db: Reads): Promise<string[]> {
  const rows = await rowsOf(
    db,
    { name: readText },
    sql`select n.nspname || '.' || o.name as name from (
          select oid, relname as name, relnamespace as space, 'pg_class'::regclass as class from pg_class where relkind in ('r', 'v', 'm', 'p', 'f', 'S')
          union all select oid, proname, pronamespace, 'pg_proc'::regclass from pg_proc
          union all select oid, typname, typnamespace, 'pg_type'::regclass from pg_type where typtype in ('e', 'd')
        ) o join pg_namespace n on n.oid = o.space
        where n.nspname !~ '^pg_' and n.nspname <> 'information_schema'
          and not exists (select from pg_depend d where d.classid = o.class and d.objid = o.oid and d.deptype = 'e')
        order by 1 limit 4`,
  );
  return rows.map((r) => r.name);
}

async function isThere(db: Reads, table: string): Promise<boolean> {
  const [row] = await rowsOf(db, { any: readBoolean }, sql`select to_regclass(${table}) is not null as any`);
  return row!.any;
}

/** Whether the schema in it is one that Zelbin made. */
async function isMarked(db: Reads): Promise<boolean> {
  const [row] = await rowsOf(
    db,
    { any: readBoolean },
    sql`select exists (select 1 from pg_namespace where nspname = ${OURS} and obj_description(oid, 'pg_namespace') = ${MARK}) as any`,
  );
  return row!.any;
}

/** Whether it is an earlier Zelbin's, which worked in the schema public: every step taken there is one of ours, by the moment it was made. */
async function isOfBefore(db: Reads, steps: readonly number[]): Promise<boolean> {
  if (!(await isThere(db, "drizzle.__drizzle_migrations")) || !(await isThere(db, "public.movement"))) return false;
  const taken = await rowsOf(db, { at: readText }, sql`select created_at::text as at from drizzle.__drizzle_migrations`);
  return taken.length > 0 && taken.every((t) => steps.includes(Number(t.at)));
}

async function makeSchema(tx: Tx): Promise<void> {
  await tx.execute(sql`create schema ${sql.identifier(OURS)}`);
  await tx.execute(sql.raw(`comment on schema ${OURS} is '${MARK}'`));
}

/**
 * Makes sure that a database may be worked in: an empty one gets our schema, one of an earlier Zelbin has its list of steps moved into it.
 * @param steps the moments at which our steps were made
 * @throws NotOurs naming some of what is in it
 */
export async function makeOurs(db: Db, name: string, steps: readonly number[]): Promise<void> {
  if (await isMarked(db)) return;
  const before = await isOfBefore(db, steps);
  const others = before ? [] : await whatElse(db);
  if (others.length > 0)
    throw new NotOurs(name, `holds something else already (${others.slice(0, 3).join(", ")}${others.length > 3 ? " and more" : ""})`);
  await db.transaction(async (tx) => {
    await makeSchema(tx);
    if (!before) return;
    await tx.execute(sql`alter table drizzle.__drizzle_migrations set schema ${sql.identifier(OURS)}`);
    // Goes only where nothing else is in it.
    if ((await whatElse(tx)).every((what) => !what.startsWith("drizzle."))) await tx.execute(sql`drop schema drizzle`);
  });
}

/** What is in our schema without being Zelbin's, or elsewhere and depends on what is in it. */
async function othersIn(db: Reads): Promise<string[]> {
  const known = Object.values(schema).flatMap((t) => (is(t, PgTable) ? [getTableName(t)] : []));
  const rows = await rowsOf(
    db,
    { name: readText },
    sql`select c.relnamespace::regnamespace || '.' || c.relname as name from pg_class c
          where c.relnamespace = ${OURS}::regnamespace and c.relkind in ('r', 'v', 'm', 'p', 'f')
            and c.relname not in (${sql.join(
              [...known, ...VIEWS, STEPS_TAKEN.table].map((n) => sql`${n}`),
              sql`, `,
            )})
        union select v.relnamespace::regnamespace || '.' || v.relname from pg_depend d join pg_rewrite r on d.classid = 'pg_rewrite'::regclass and r.oid = d.objid
          join pg_class v on v.oid = r.ev_class join pg_class o on d.refclassid = 'pg_class'::regclass and o.oid = d.refobjid
          where o.relnamespace = ${OURS}::regnamespace and v.relnamespace <> o.relnamespace
        union select f.relnamespace::regnamespace || '.' || f.relname from pg_constraint k join pg_class o on o.oid = k.confrelid join pg_class f on f.oid = k.conrelid
          where o.relnamespace = ${OURS}::regnamespace and f.relnamespace <> o.relnamespace
        order by 1`,
  );
  return rows.map((r) => r.name);
}

/** Removes everything of Zelbin's from a database and leaves an empty schema. @throws Error where the database isn't ours, or holds something else, or something else depends on it */
export async function emptyOurs(db: Db, name: string): Promise<void> {
  await db.transaction(async (tx) => {
    if (!(await isMarked(tx))) throw new NotOurs(name, "holds no workshop that Zelbin made");
    const others = await othersIn(tx);
    if (others.length > 0)
      throw new Error(
        `The database ${name} can't be emptied: ${others.join(", ")} ${others.length > 1 ? "are" : "is"} not Zelbin's and would go with it. Move or drop ${others.length > 1 ? "them" : "it"} yourself first; nothing was changed.`,
      );
    await tx.execute(sql`drop schema ${sql.identifier(OURS)} cascade`);
    await makeSchema(tx);
  });
}
