/** What is posted many times at the same moment counts once; two who give the same name at the same moment are told so beside it. */
import { refused } from "#test/db/workshop";
import { saveContact } from "#db/contacts/contacts";
import { readJar } from "#db/jars/read";
import { saveMaterial } from "#db/shelf/keepMaterial";
import { readReceipt } from "#db/shelf/receipts/receipts";
import { act, harvestCheck } from "#db/schema";
import { count, eq, sql } from "drizzle-orm";
import { expect, it } from "vitest";
import { action as jar } from "#app/jars/jar.tsx";
import { action as photo } from "#app/jars/photo.ts";
import { action as wall } from "#app/jars/jars.tsx";
import { action as receipt } from "#app/shelf/receipts/receipt.tsx";
import { action as harvest } from "#app/shelf/harvests/harvest.tsx";
import { post } from "./posting.ts";
import { DAY, db, theDemo } from "./demo.ts";

const TIMES = 20;
theDemo();

const token = () => crypto.randomUUID();
const file = (name: string): FormData => {
  const form = new FormData();
  form.set("file", new File(["%PDF-1.4\n1 0 obj<<>>endobj\ntrailer<<>>\n%%EOF"], name));
  form.set("token", token());
  return form;
};
const acts = async (): Promise<number> => (await db.select({ n: count() }).from(act))[0]!.n;

it.each<[string, unknown, () => object | FormData, string]>([
  ["a scan", receipt, () => file("scan.pdf"), "3"],
  ["a photo", photo, () => file("jar.pdf"), "12"],
  ["a shake", jar, () => ({ intent: "shaken", token: token() }), "12"],
  ["a shake of all", wall, () => ({ jars: [12], token: token() }), ""],
  ["a temperature", jar, () => ({ intent: "temperature", celsius: "45", token: token() }), "12"],
  ["a word", jar, () => ({ intent: "note", note: "Smells of hay", token: token() }), "12"],
  ["a drying weight", harvest, () => ({ intent: "weigh", day: DAY, weight: "90 g", celsius: "", note: "", token: token() }), "4"],
])("%s, sent twenty times at once", async (_, action, body, id) => {
  const before = await acts();
  const one = body();
  const copy = (): object => {
    if (!(one instanceof FormData)) return one;
    const form = new FormData();
    for (const [k, v] of one) form.set(k, v);
    return form;
  };
  const answers = await Promise.all(Array.from({ length: TIMES }, () => post(action, copy(), id)));
  expect(new Set(answers.map((a) => `${a.status} ${a.to}`)).size).toBe(1);
  expect(answers[0]!.status).toBe(302);
  expect(await acts()).toBe(before + 1);
});

it("leaves one of each", async () => {
  expect((await readReceipt(db, 3))!.scans).toHaveLength(1);
  expect((await readJar(db, 12))!.events.filter((e) => e.kind === "photo")).toHaveLength(1);
  const weights = await db
    .select({ n: count() })
    .from(harvestCheck)
    .where(sql`${harvestCheck.weight} = 90000`);
  expect(weights[0]!.n).toBe(1);
});

it("a name given in many windows at the same moment is one's, and the others are told beside their field", async () => {
  for (const give of [
    (i: number) =>
      saveMaterial(db, { name: `Same oil${i % 2 ? "" : " "}`.trim(), kind: "oil", densities: {} }, { day: DAY, token: token() }),
    () => saveContact(db, { kind: "supplier", name: "Same mill", reach: "", note: "" }, { day: DAY, token: token() }),
  ]) {
    const results = await Promise.all(
      Array.from({ length: 8 }, (_, i) =>
        refused(give(i)).catch((e: unknown) => (String(e).includes("not refused") ? [] : Promise.reject(e as Error))),
      ),
    );
    expect(results.filter((r) => r.length === 0)).toHaveLength(1);
    for (const r of results.filter((x) => x.length > 0)) expect(r[0]).toMatchObject({ field: "name" });
  }
  expect(await db.select().from(act).where(eq(act.summary, ""))).toEqual([]);
});
