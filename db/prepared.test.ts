/** Statements put together once and planned once: whatever they are asked with, wherever, and however long. */
import { and, eq, sql } from "drizzle-orm";
import { expect, it, vi } from "vitest";
import { anyNamed, anyOf, hasAll, normalizeNames, wordsOf } from "./pieces.ts";
import { runPrepared } from "./prepared.ts";
import { material } from "./schema.ts";
import { db, eachTestHasAWorkshop, ids } from "#test/db/workshop";

eachTestHasAWorkshop();

const named = (of: number[], names: string[] = []) =>
  runPrepared(db, "test_named", { of, names: normalizeNames(names) }, (at) =>
    db
      .select({ id: material.id, name: material.name })
      .from(material)
      .where(sql`${anyOf(material.id, at.of)} or ${anyNamed(material.name, at.names)}`)
      .orderBy(material.id),
  );
/** Statements that stand prepared on the connections. */
const planned = async (like: string): Promise<number> => {
  const { rows } = await db.execute<{ n: number }>(sql`select count(*)::int as n from pg_prepared_statements where statement like ${like}`);
  return rows[0]!.n;
};

it("answers what it is asked with, one, several or none, by number or by name", async () => {
  expect(await named([ids.oil])).toEqual([{ id: ids.oil, name: "Oil" }]);
  expect(await named([ids.wax, ids.oil, ids.oil])).toHaveLength(2);
  expect(await named([])).toEqual([]);
  expect(await named([], [" WAX ", "nobody's", 'it\'s {a}, "b" \\ c'])).toEqual([{ id: ids.wax, name: "Wax" }]);
});

it.each([
  ["Olive oil, 5 % of it", "5 %", true],
  ["Olive oil, 50 of it", "5%", false],
  ["Olive oil", "OIL oliv", true],
  ["Olive oil", "oil lavender", false],
  ["Olive oil", "  ", true],
  ["Olive_oil", "e_o", true],
  ["Olive oil", "e_o", false],
  ["C:\\oils\\", "\\", true],
  ['Oil, "cold" {pressed}', 'd" {p', true],
  ["Oil, cold", "l,", true],
])("in “%s” looks for “%s” as it stands", async (name, find, there) => {
  await db.update(material).set({ name }).where(eq(material.id, ids.oil));
  const found = await runPrepared(db, "test_has_all", { words: wordsOf(find) }, (at) =>
    db
      .select({ id: material.id })
      .from(material)
      .where(and(eq(material.id, ids.oil), hasAll(material.name, at.words))),
  );
  expect(found).toHaveLength(there ? 1 : 0);
});

it("sees in a transaction what that has done, and outside what is committed", async () => {
  await expect(
    db.transaction(async (tx) => {
      await tx.update(material).set({ name: "Oil of another name" }).where(eq(material.id, ids.oil));
      const inside = await runPrepared(tx, "test_name", { id: ids.oil }, (at) =>
        tx.select({ name: material.name }).from(material).where(eq(material.id, at.id)),
      );
      expect(inside).toEqual([{ name: "Oil of another name" }]);
      throw new Error("power cut");
    }),
  ).rejects.toThrow("power cut");
  expect(await named([ids.oil])).toEqual([{ id: ids.oil, name: "Oil" }]);
});

it("what is asked again and again is prepared by itself; what is asked once, or is as long as a book, is not", async () => {
  const often = () => db.execute<{ n: number }>(sql`select 1 as n, 'often' as said where ${ids.oil}::int > 0`);
  const book = sql.raw(`select 'book' as said, '${"x".repeat(12_000)}' as text`);
  for (let i = 0; i < 6; i++) {
    expect((await often()).rows).toHaveLength(1);
    expect((await db.execute(book)).rows).toHaveLength(1);
  }
  await db.execute(sql`select 'once' as said`);
  expect(await planned("%'often' as said%")).toBe(1);
  expect(await planned("%'book' as said%")).toBe(0);
  expect(await planned("%'once' as said%")).toBe(0);
});

it("is prepared again on a new connection where one was lost, and that it was is said", async () => {
  const said = vi.spyOn(console, "error").mockImplementation(() => undefined);
  // Two at once: there is another connection than the one that ends it.
  for (let i = 0; i < 4; i++) await Promise.all([named([ids.oil]), named([ids.oil])]);
  await db.execute(
    sql`select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()`,
  );
  await expect.poll(() => named([ids.oil]).catch(() => null)).toEqual([{ id: ids.oil, name: "Oil" }]);
  // The notice takes its time on a machine that does other work.
  await expect.poll(() => said.mock.calls.flat().join("\n"), { timeout: 20_000 }).toContain("database connection lost");
  said.mockRestore();
});
