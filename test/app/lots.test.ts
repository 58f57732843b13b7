/** Looking a lot up by a number with a slip in it, on the demo. */
import { lot } from "#db/schema";
import { readSettings, saveSettings } from "#db/settings/settings";
import { desc } from "drizzle-orm";
import { expect, it } from "vitest";
import { loader } from "#app/lots/lots.tsx";
import { db, theDemo } from "./demo.ts";

theDemo();

const asked = (number: string) =>
  loader({ request: new Request(`http://127.0.0.1/lots?number=${encodeURIComponent(number)}`), params: {}, context: {} } as never);

it("a number with one slip leads to the lots it may have meant; with a check character in use it is said to have one", async () => {
  const [{ number }] = (await db.select({ number: lot.number }).from(lot).orderBy(desc(lot.id)).limit(1)) as [{ number: string }];
  const wrong = `${number.slice(0, 2)}${number[3]}${number[2]}${number.slice(4)}Q`;
  const one = `${number}Q`;
  const found = await asked(one.toLowerCase());
  expect([found.near, found.slip, found.found.map((l) => l.number)]).toEqual([true, false, [number]]);
  expect((await asked(wrong)).found.map((l) => l.number)).not.toContain(number);
  await saveSettings(db, { ...(await readSettings(db)), batchScheme: "{P}{YY}{MM}{DD}-{N}{C}" }, { day: "2026-11-25" });
  // Of all characters one alone fits.
  const fits = await Promise.all(
    Array.from("0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ").map(async (c) => !(await asked(`QZ261125-9${c}`)).slip),
  );
  expect(fits.filter(Boolean)).toHaveLength(1);
  expect(await asked("lavender, perhaps")).toMatchObject({ near: false, slip: false, found: [] });
  await expect(asked(number)).rejects.toMatchObject({ status: 302 });
});
