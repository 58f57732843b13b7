/** Readers of the database's answers: a row that holds an impossible value throws, wherever it is read. */
import { sql, type SQL } from "drizzle-orm";
import { expect, it } from "vitest";
import { readBoolean, readNumber, readText, jsonRows, sqlNumber, orNone, rowsOf } from "./columnsOf.ts";
import { readRecipes } from "./recipe/read.ts";
import { material, recipeLine } from "./schema.ts";
import { readSettings } from "./settings/settings.ts";
import { readMaterial } from "./shelf/materials.ts";
import { db, eachTestHasAWorkshop, ids } from "#test/db/workshop";

eachTestHasAWorkshop();

it.each<[string, () => SQL, () => Promise<unknown>]>([
  ["a kind nobody knows", () => sql`update material set kind = 'ghost' where id = ${ids.oil}`, () => readMaterial(db, ids.oil)],
  [
    "a density of nothing",
    () => sql`update material set densities = '{"liquid": 0}' where id = ${ids.oil}`,
    () => readMaterial(db, ids.oil),
  ],
  ["cautions that are none", () => sql`update material set cautions = '["ghost"]' where id = ${ids.oil}`, () => readMaterial(db, ids.oil)],
  ["a form nobody knows, folded into JSON", () => sql`update recipe_line set form = 'ghost'`, () => readRecipes(db)],
  ["money past counting", () => sql`update product set own_price = 9007199254740993`, () => readRecipes(db)],
  ["a fee in words", () => sql`insert into settings (id, data) values (1, '{"cardFeeBp": "two"}')`, () => readSettings(db)],
])("%s is refused where it is read", async (_, spoil, read) => {
  await read();
  await db.execute(spoil());
  await expect(read()).rejects.toThrow(/none of|not what this column holds|whole safe number/);
});

it.each<[string, () => Promise<unknown>, unknown]>([
  ["a number", () => rowsOf(db, { n: readNumber }, sql`select 5::bigint as n`), [{ n: 5 }]],
  ["no number", () => rowsOf(db, { n: readNumber }, sql`select null as n`), "not a number: null"],
  ["a number out of words", () => rowsOf(db, { n: readNumber }, sql`select 'five' as n`), "not a number"],
  ["a text that is a number", () => rowsOf(db, { t: readText }, sql`select 5 as t`), "not a text: 5"],
  ["a flag that is a text", () => rowsOf(db, { f: readBoolean }, sql`select 't' as f`), "not a yes or no"],
  ["nothing, where that may be", () => rowsOf(db, { n: orNone(readNumber) }, sql`select null as n`), [{ n: null }]],
  ["what wasn't asked for", () => rowsOf(db, { n: readNumber }, sql`select 5 as other`), "n wasn't asked for"],
  ["a name that is missing", () => rowsOf(db, { name: material.name }, sql`select null as name`), "name is missing"],
  ["a column computed wrong", () => db.select({ n: sqlNumber(sql`'five'`) }).from(material), "not a number"],
  ["rows that are none", () => db.select({ l: jsonRows(sql`'5'::jsonb`, { form: recipeLine.form }) }).from(material), "not rows: 5"],
])("%s", async (_, read, want) => {
  if (typeof want === "string") await expect(read()).rejects.toThrow(want);
  else expect(await read()).toEqual(want);
});
