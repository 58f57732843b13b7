/** What a calendar says of what has its day, read back by another library. */
import fc from "fast-check";
import ICAL from "ical.js";
import { describe, expect, it } from "vitest";
import { addDays } from "../when.ts";
import { ABOUTS, aboutsOf, CALENDAR_KIND_IDS, entryOf, kindOf, type Dated } from "./entries.ts";
import { writeCalendar } from "./ics.ts";

const CHANGED = new Date("2026-11-20T10:11:12Z");
const dated = (of: Partial<Dated>): Dated => ({
  ...{ about: "order", key: "order-4", id: 4, name: "Nan next door", number: null, day: "2026-12-07", from: null, minutes: null },
  ...{
    state: "stands",
    goods: "2 × Hand balm, 60 g",
    amount: null,
    weighed: false,
    earliest: null,
    latest: null,
    changes: 1,
    changed: CHANGED,
  },
  ...of,
});
const CALENDAR = { name: "Aldermoss", books: "b1", home: "http://127.0.0.1:4000/own" };

/** As another library reads it: ical.js. */
function readBack(text: string) {
  const all = new ICAL.Component(ICAL.parse(text) as unknown[]);
  return all.getAllSubcomponents("vevent").map((c) => {
    const e = new ICAL.Event(c);
    return {
      uid: e.uid,
      title: e.summary,
      note: e.description,
      allDay: e.startDate.isDate,
      from: e.startDate.toString(),
      to: e.endDate.toString(),
      sequence: e.sequence,
      status: c.getFirstPropertyValue("status"),
      url: c.getFirstPropertyValue("url"),
      changed: String(c.getFirstPropertyValue("last-modified")),
      alarms: c
        .getAllSubcomponents("valarm")
        .map((a) => [String(a.getFirstPropertyValue("trigger")), a.getFirstProperty("trigger")!.getParameter("related")]),
    };
  });
}
const written = (...of: Partial<Dated>[]) =>
  readBack(
    writeCalendar(
      of.map((o) => entryOf(dated(o))),
      CALENDAR,
    ),
  );

describe("an entry", () => {
  it.each<[Partial<Dated>, string, string, string]>([
    [{}, "Order for Nan next door", "2 × Hand balm, 60 g", "/gifts/4"],
    [{ state: "done" }, "Order for Nan next door", "Packed. 2 × Hand balm, 60 g", "/gifts/4"],
    [{ state: "off", goods: "" }, "Order for Nan next door", "No longer so.", "/gifts/4"],
    [{ about: "market", name: "Lantern Night", amount: 43, goods: "" }, "Lantern Night", "43 units along.", "/markets/4"],
    [{ about: "market", name: "Fair", amount: 1, state: "done" }, "Fair", "Closed. 1 unit along.", "/markets/4"],
    [
      { about: "latest", name: "Plantain in oil", number: "J26-1", earliest: "2026-12-01", latest: "2027-01-10" },
      "Last day to strain Plantain in oil",
      "Jar J26-1: could be strained from Tuesday 1 December 2026 on, by Sunday 10 January 2027 at the latest.",
      "/jars/4",
    ],
    [
      { about: "lotDay", name: "Shea", number: "R/1 2", amount: 12_500, weighed: true },
      "Last day of Shea, R/1 2",
      "13 g left.",
      "/lots/R%2F1%202",
    ],
    [{ about: "lotDay", name: "Balm", number: "B1", amount: 2 }, "Last day of Balm, B1", "2 units left.", "/lots/B1"],
    [{ about: "heat", name: "Rose", number: "J1" }, "Rose is on gentle heat", "Jar J1.", "/jars/4"],
    [{ about: "timer", name: "Balm, cool down" }, "Timer at the bench: Balm, cool down", "", "/bench/4/at"],
  ])("of %j is called “%s”", (of, title, note, path) => {
    expect(entryOf(dated(of))).toMatchObject({ title, note, path });
  });

  it("is of one kind, and every kind has some", () => {
    expect(CALENDAR_KIND_IDS.flatMap((k) => aboutsOf([k])).sort()).toEqual([...ABOUTS].sort());
    for (const k of CALENDAR_KIND_IDS) for (const a of aboutsOf([k])) expect(kindOf(a)).toBe(k);
  });
});

describe("a calendar, read back by ical.js", () => {
  it("has all-day entries without a time of day, with the name they keep, and where they are", () => {
    expect(written({ changes: 3 })).toEqual([
      {
        uid: "order-4@b1.zelbin",
        title: "Order for Nan next door",
        note: "2 × Hand balm, 60 g",
        allDay: true,
        from: "2026-12-07",
        to: "2026-12-08",
        sequence: 2,
        status: "CONFIRMED",
        url: "http://127.0.0.1:4000/own/gifts/4",
        changed: "2026-11-20T10:11:12Z",
        alarms: [],
      },
    ]);
  });

  it("says that one is cancelled, under the same name and with a higher count", () => {
    const [stands] = written({});
    const [off] = written({ state: "off", changes: 2, day: "2026-12-01" });
    expect([stands!.uid, stands!.status]).toEqual([off!.uid, "CONFIRMED"]);
    expect([off!.status, off!.sequence > stands!.sequence]).toEqual(["CANCELLED", true]);
  });

  it("has timers with their moments, and a reminder at the end while they run", () => {
    const timer = { about: "timer" as const, key: "timer-9", from: new Date("2026-12-07T08:30:00Z"), minutes: 90 };
    const [runs] = written(timer);
    expect(runs).toMatchObject({ allDay: false, from: "2026-12-07T08:30:00Z", to: "2026-12-07T10:00:00Z" });
    expect(runs!.alarms).toEqual([["PT0S", "END"]]);
    expect(written({ ...timer, state: "off" })[0]!.alarms).toEqual([]);
  });

  it("any words and days come back as they were, in lines of at most 75 bytes, and the same twice (RFC 5545, 3.1)", () => {
    const words = fc
      .string({ maxLength: 120, unit: fc.constantFrom("a", "é", "—", ",", ";", "\\", ":", '"', "×", "🍯", " b") })
      .map((t) => `x${t}x`);
    fc.assert(
      fc.property(words, words, fc.integer({ min: 0, max: 4000 }), (name, goods, days) => {
        const of = dated({ name, goods, day: addDays("2020-02-27", days) });
        const text = writeCalendar([entryOf(of)], CALENDAR);
        expect(text).toBe(writeCalendar([entryOf(of)], CALENDAR));
        for (const line of text.split("\r\n")) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
        expect(readBack(text)).toMatchObject([{ title: `Order for ${name}`, note: goods, from: of.day, to: addDays(of.day, 1) }]);
      }),
    );
  });

  it("says what it is, how often to ask again, and who wrote it", () => {
    const all = new ICAL.Component(ICAL.parse(writeCalendar([], CALENDAR)) as unknown[]);
    const of = (name: string) => String(all.getFirstPropertyValue(name));
    expect(["version", "method", "name", "refresh-interval", "prodid"].map(of)).toEqual([
      "2.0",
      "PUBLISH",
      "Aldermoss",
      "PT1H",
      "-//Zelbin//Zelbin//EN",
    ]);
  });
});
