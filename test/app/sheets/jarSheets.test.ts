/** Sheets of jars as a browser posts them, on the demo workshop: valid ones are saved, errors appear beside their fields. */
import { lotsForJars, readJar, steepingJars } from "#db/jars/read";
import { expectLedgerTrue } from "#test/db/fresh";
import { describe, expect, it } from "vitest";
import { action as fill } from "#app/jars/fill.tsx";
import { action as jar } from "#app/jars/jar.tsx";
import { action as photo } from "#app/jars/photo.ts";
import { post } from "../posting.ts";
import { db, idOf, theDemo } from "../demo.ts";

theDemo();

describe("jars", () => {
  const sheet = (over: object = {}) => ({
    name: "",
    method: "plate",
    ownDays: "",
    ownHours: "",
    day: "2026-11-25",
    wished: "",
    by: "ratio",
    oil: "200 g",
    ratio: "10",
    holds: "500 mL",
    herbs: [{ material: "Meadowsweet flowers, dried", lot: "", cut: "whole", parts: "1" }],
    carriers: [{ material: "Apricot kernel oil", lot: "", parts: "1" }],
    ...over,
  });
  it.each<[string, object, string]>([
    ["no herb", { herbs: [] }, ""],
    ["an oil for a herb", { herbs: [{ material: "Castor oil", lot: "", cut: "cut", parts: "1" }] }, "herbs.0.material"],
    ["more oil than there is", { oil: "50 kg" }, "herbs.0.lot"],
    ["a jar too small", { holds: "100 mL" }, "why"],
    [
      "butter on a shelf, without a reason",
      { method: "shelf", carriers: [{ material: "Shea butter, unrefined", lot: "", parts: "1" }] },
      "why",
    ],
  ])("%s is refused", async (_, over, field) => {
    const before = await steepingJars(db);
    const a = await post(fill, sheet(over));
    expect(a.status).toBe(422);
    expect(a.fields).toContain(field);
    expect(await steepingJars(db)).toEqual(before);
  });
  it("filled from its sheet it draws what the sheet says, is named by itself, and is strained from its own", async () => {
    const grams = async (name: string) => {
      const id = await idOf(name);
      return (await lotsForJars(db, [id])).reduce((a, l) => a + l.onHand, 0);
    };
    const [herb, oil] = [await grams("Meadowsweet flowers, dried"), await grams("Apricot kernel oil")];
    const { to } = await post(fill, sheet());
    const id = /jars\/(\d+)/.exec(to)![1]!;
    expect([herb - (await grams("Meadowsweet flowers, dried")), oil - (await grams("Apricot kernel oil"))]).toEqual([20_000, 200_000]);
    expect((await readJar(db, Number(id)))!.jar).toMatchObject({ name: "Meadowsweet flowers in apricot kernel oil", heatMinutes: 720 });
    for (const [body, field] of [
      [{ intent: "temperature", celsius: "hot" }, "celsius"],
      [{ intent: "temperature", celsius: "400 F" }, "celsius"],
      [{ intent: "heatOn", minutes: "0" }, "minutes"],
      [{ intent: "topUp", lot: "1", qty: "10 g" }, "lot"],
      [{ intent: "strain", back: "", bottles: [{ amount: "10 g" }] }, "back"],
      [{ intent: "strain", back: "100 g", bottles: [] }, "bottles"],
      [{ intent: "strain", back: "100 g", bottles: [{ amount: "101 g" }] }, "bottles.0.amount"],
      [{ intent: "spoil", why: " " }, "why"],
      [{ intent: "sing" }, ""],
    ] as const)
      expect(await post(jar, body, id), JSON.stringify(body)).toMatchObject({ status: 422, fields: [field] });
    const form = new FormData();
    form.set("file", new File(["not a picture"], "jar.jpg"));
    expect(await post(photo, form, id)).toMatchObject({ status: 422, fields: ["file"] });
    for (const body of [
      { intent: "shaken" },
      { intent: "temperature", celsius: "110 °F" },
      { intent: "note", note: "Deep gold" },
      { intent: "heatOn", minutes: "720" },
      { intent: "heatOff" },
      {
        intent: "strain",
        back: "165 g",
        secondBack: "163 g",
        sediment: "1 g",
        herbOut: "52 g",
        pressed: true,
        bottles: [{ amount: "100 g" }, { amount: "60 g" }],
      },
    ])
      expect((await post(jar, body, id)).status, JSON.stringify(body)).toBe(302);
    const j = (await readJar(db, Number(id)))!;
    expect(j.jar).toMatchObject({ back: 165_000, secondBack: 163_000, sediment: 1_000, herbOut: 52_000, pressed: true, heatOn: null });
    expect(j.bottles.map((b) => b.qty)).toEqual([100_000, 60_000]);
    expect(j.events.map((e) => e.kind)).toEqual(["heatOff", "heatOn", "note", "temperature", "shaken"]);
    expect(j.events.find((e) => e.kind === "temperature")!.celsius).toBeCloseTo(43.3, 5);
    expect((await post(jar, { intent: "shaken" }, id)).status).toBe(422);
    await expectLedgerTrue(db);
  });
});
