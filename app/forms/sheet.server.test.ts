/** Reading a posted sheet, and answering it. */
import { readFlash } from "./flash.server.ts";
import { EditedMeanwhile, Refused } from "#core/refused";
import { parseMoney } from "#core/measure/read";
import { describe, expect, it } from "vitest";
import { array, object } from "yup";
import { reads, wholeNumber, requiredText } from "./fields.ts";
import { mergeSheets, joined } from "./mergeSheets.ts";
import { runAct, readSheet, type Reply } from "./sheet.server.ts";

const schema = object({
  name: requiredText("a name"),
  lines: array()
    .of(object({ units: wholeNumber(1, 9, "units"), price: reads(parseMoney) }))
    .min(1, "Enter at least one line.")
    .required(),
});
const post = (body: unknown): Request =>
  new Request("http://127.0.0.1/x", { method: "POST", body: typeof body === "string" ? body : JSON.stringify(body) });
const TOKEN = "0b0e7e6e-6d1c-4a53-9b1e-3b6f8f0a1c2d";

/** Field and words of every problem of an answer. */
const problemsOf = (sheet: Awaited<ReturnType<typeof readSheet>>): Record<string, string> => {
  if (sheet.ok) throw new Error("It was read.");
  expect(sheet.reply.init?.status).toBe(422);
  return Object.fromEntries(sheet.reply.data.problems.map((p) => [p.field, p.say]));
};

describe("reading", () => {
  it("gives typed values and the token, and drops what it doesn't know", async () => {
    const sheet = await readSheet(
      post({ name: " Fair ", lines: [{ units: "3", price: "4.50" }], token: TOKEN, seen: 7, other: "x" }),
      schema,
    );
    expect(sheet).toMatchObject({
      ok: true,
      doing: { token: TOKEN, seen: 7 },
      value: { name: "Fair", lines: [{ units: 3, price: 4_500_000 }] },
    });
  });
  it("names every problem by the path of its field, all at once", async () => {
    const sheet = await readSheet(
      post({
        name: "",
        lines: [
          { units: "3", price: "x" },
          { units: "12", price: "1" },
        ],
      }),
      schema,
    );
    expect(problemsOf(sheet)).toEqual({
      name: "Enter a name.",
      "lines.0.price": "“x” isn't an amount of money. Write it like 12.50.",
      "lines.1.units": "12 units can't be right; the most here is 9.",
    });
  });
  it("an empty table is a problem of the table", async () => {
    expect(problemsOf(await readSheet(post({ name: "Fair", lines: [] }), schema))).toEqual({ lines: "Enter at least one line." });
  });
  it.each(["", "not json", "{"])("a body that isn't a sheet: %j", async (body) => {
    expect(Object.keys(problemsOf(await readSheet(post(body), schema)))).toEqual([""]);
  });
  it.each(["", "1", 7, null, `${TOKEN}x`])("a token that isn't one is left out: %j", async (token) => {
    const sheet = await readSheet(post({ name: "Fair", lines: [{ units: "3", price: "1" }], token }), schema);
    expect(sheet.ok && sheet.doing.token).toBeUndefined();
  });
});

describe("answering", () => {
  it("an act done leads to its place, and the next page tells of it once", async () => {
    const answer = (await runAct(() => Promise.resolve({ actId: 12, path: "/shelf" }))) as Response;
    expect([answer.status, answer.headers.get("location")]).toEqual([302, "/shelf"]);
    const next = (from: Headers) =>
      readFlash(new Request("http://127.0.0.1/shelf", { headers: { Cookie: from.get("set-cookie")!.split(";")[0]! } }));
    const told = await next(answer.headers);
    expect(told?.actId).toBe(12);
    expect(await next(new Headers(told!.headers))).toBeNull();
    expect(await next(new Headers({ "set-cookie": "zelbin-did=eyJkaWQiOiI5In0" }))).toBeNull();
    const elsewhere = (await runAct(() => Promise.resolve({ actId: 12, path: "/shelf" }), { path: () => "/bench" })) as Response;
    expect(elsewhere.headers.get("location")).toBe("/bench");
  });
  it("a refusal goes back with its fields; anything else is not swallowed", async () => {
    const answer = await runAct(() => Promise.reject(Refused.one("units", "There are only 2.")));
    expect(answer).toMatchObject({
      data: { problems: [{ field: "units", say: "There are only 2." }] } satisfies Reply,
      init: { status: 422 },
    });
    await expect(runAct(() => Promise.reject(new Error("cable pulled")))).rejects.toThrow("cable pulled");
  });
  it("a save over a newer version brings the other sheet along, so that neither is lost", async () => {
    const meanwhile = { actId: 9, summary: "Saved Oil", who: "Ines", at: "2026-11-25T10:00:00.000Z" };
    const answer = await runAct(() => Promise.reject(new EditedMeanwhile(meanwhile)), {
      theirs: () => Promise.resolve({ name: "Oil, cold" }),
    });
    expect(answer).toMatchObject({ data: { changed: { ...meanwhile, theirs: { name: "Oil, cold" } } }, init: { status: 409 } });
  });
});

describe("two sheets of one record", () => {
  const base = { name: "Oil", note: "", lines: [{ a: "1" }, { a: "2" }], channels: { market: "1" } };
  it("settles what only one of them changed, and asks about the rest", () => {
    const mine = { ...base, name: "Oil, cold", note: "mine", lines: [{ a: "1" }, { a: "9" }, { a: "new" }] };
    const theirs = { ...base, name: "Oil, warm", lines: [{ a: "0" }, { a: "2" }], channels: { market: "2" } };
    const fields = mergeSheets(base, mine, theirs);
    expect(Object.fromEntries(fields.map((f) => [f.path, f.settled]))).toEqual({
      name: null,
      note: "mine",
      "lines.0": "theirs",
      "lines.1": "mine",
      "lines.2": "mine",
      "channels.market": "theirs",
    });
    expect(joined(mine, theirs, fields, (f) => f.settled ?? "theirs")).toEqual({
      name: "Oil, warm",
      note: "mine",
      lines: [{ a: "0" }, { a: "9" }, { a: "new" }],
      channels: { market: "2" },
    });
  });
  it("a row the other took off is gone or stays, as chosen, and leaves no gap", () => {
    const theirs = { ...base, lines: [{ a: "1" }] };
    const fields = mergeSheets(base, base, theirs);
    expect(joined(base, theirs, fields, (f) => f.settled ?? "mine").lines).toEqual([{ a: "1" }]);
    expect(mergeSheets(base, base, base)).toEqual([]);
  });
});
