/** Pages and programs that mean no good: whatever they send, the answer is in our words, and never the server's fall. */
import fc from "fast-check";
import { existsSync, readFileSync } from "node:fs";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { request as send } from "node:http";
import type { ServerBuild } from "react-router";
import type { Found, Turns } from "./found.ts";
import type { Keeper } from "./keeper.ts";

const POSTS = 700;
const GETS = 500;
const AT_ONCE = 8;
const JUNK_MB = 30;

interface Asked {
  method: string;
  path: string;
  headers: Record<string, string>;
  body: Buffer | null;
}

/** What has been answered by then counts; the devices' stream goes on for as long as somebody listens. */
const LISTENS_MS = 20_000;
const STREAM_MS = 200;

/** Sends what no well-behaved client would: raw paths, any method, any bytes. @returns the status; 0 where the connection was ended */
const ask = (base: string, { method, path, headers, body }: Asked): Promise<{ status: number; text: string }> =>
  new Promise((done) => {
    const at = new URL(base);
    const r = send({ host: at.hostname, port: at.port, method, path, headers }, (answer) => {
      let text = "";
      if (answer.headers["content-type"]?.startsWith("text/event-stream")) setTimeout(() => r.destroy(), STREAM_MS);
      answer.on("data", (d: Buffer) => (text.length < 4000 ? (text += d.toString()) : undefined));
      answer.on("error", () => undefined);
      answer.on("close", () => done({ status: answer.statusCode ?? 0, text }));
    });
    r.on("error", () => done({ status: 0, text: "" }));
    const late = setTimeout(() => r.destroy(new Error("late")), LISTENS_MS);
    r.on("close", () => clearTimeout(late));
    r.end(body ?? undefined);
  });

/** The buttons a route's own source names, so that most posts get past them. */
function buttonsOf(file: string): string[] {
  const path = ["ts", "tsx"].map((end) => resolve("app", `${file}.${end}`)).find(existsSync);
  const lists = path ? [...readFileSync(path, "utf8").matchAll(/(?:intentOf\(|pressedSheet\(request, )\[([^\]]*)\]/g)] : [];
  return lists.flatMap(([, list]) => [...list!.matchAll(/"(\w+)"/g)].map(([, word]) => word!));
}

/** The addresses of every route, and of those something can be posted to, with the buttons they have. */
async function addresses(): Promise<{ all: string[]; acting: { path: string; buttons: string[] }[] }> {
  const build = (await import(pathToFileURL(resolve("build/server/index.js")).href)) as ServerBuild;
  const pathOf = (id: string): string => {
    const r = build.routes[id]!;
    return [r.parentId ? pathOf(r.parentId) : "", r.path ?? ""].filter(Boolean).join("/");
  };
  const entries = Object.entries(build.routes).flatMap(([id, r]) =>
    r ? [{ path: `/demo/${pathOf(id)}`, acts: !!r.module.action, buttons: buttonsOf(id) }] : [],
  );
  return { all: entries.map((e) => e.path), acting: entries.filter((e) => e.acts) };
}

const nasty = fc.constantFrom(
  "",
  "\0",
  "a\0b",
  "\ud800",
  "__proto__",
  "toString",
  "constructor",
  "1e999",
  "-0",
  "NaN",
  "9".repeat(400),
  "١٢٣",
  "1 855.7 g",
  "' or 1=1 --",
  "<script>alert(1)</script>",
  "\u202e\u200b",
  "x".repeat(5000),
  "../../etc/passwd",
  "2026-02-30",
  "0000-00-00",
);
const word = fc.oneof(nasty, fc.string({ unit: "binary", maxLength: 12 }), fc.integer().map(String));
const KEYS =
  "intent token seen tried lines takes sizes items wrapping herbs carriers bottles name day lotId units material qty price path sheet values text columns matches numbers dates shown supplier jars of id does actId key kind step toString __proto__".split(
    " ",
  );
const value: fc.Arbitrary<unknown> = fc.oneof(
  word,
  fc.constantFrom(null, true, -1, 1e308, [], {}, [[[[]]]], [null], { toString: 1 }),
  fc.array(fc.dictionary(fc.constantFrom(...KEYS), word), { maxLength: 3 }),
);
const sheet = fc.dictionary(fc.constantFrom(...KEYS), value, { maxKeys: 12 });
const INTENTS = [
  "post",
  "drop",
  "receive",
  "look",
  "pour",
  "clear",
  "strain",
  "topUp",
  "shake",
  "open",
  "takeOut",
  "cameBack",
  "meltDown",
  "mend",
  "filled",
  "close",
  "pack",
  "save",
  "keep",
  "weigh",
  "match",
  "standIn",
  "event",
  "sample",
  "part",
  "ladle",
  "settle",
];
const pressed = (buttons: readonly string[]) =>
  fc
    .tuple(sheet, fc.constantFrom(...buttons))
    .map(([s, intent]) => ({ type: "application/json", bytes: Buffer.from(JSON.stringify({ ...s, intent })) }));
/** What is posted to a route with these buttons. */
const bodyFor = (buttons: readonly string[]): fc.Arbitrary<{ type: string | null; bytes: Buffer }> =>
  fc.oneof(
    { weight: 6, arbitrary: pressed(buttons.length > 0 ? buttons : INTENTS) },
    { weight: 1, arbitrary: pressed(INTENTS) },
    { weight: 2, arbitrary: fc.uint8Array({ maxLength: 300 }).map((b) => ({ type: "application/json", bytes: Buffer.from(b) })) },
    {
      weight: 1,
      arbitrary: fc
        .uint8Array({ maxLength: 300 })
        .map((b) => ({ type: "multipart/form-data; boundary=x", bytes: Buffer.concat([Buffer.from("--x\r\n"), b]) })),
    },
    {
      weight: 1,
      arbitrary: fc
        .constantFrom("text/plain", "application/x-www-form-urlencoded", "application/octet-stream", null)
        .map((type) => ({ type, bytes: Buffer.from("a=1&a=2") })),
    },
    { weight: 1, arbitrary: fc.nat(3000).map((n) => ({ type: "application/json", bytes: Buffer.from("[".repeat(n) + "]".repeat(n)) })) },
  );

const piece = fc.oneof(
  fc.integer({ min: -1, max: 30 }).map(String),
  word.map((w) => encodeURIComponent(w.replace(/\p{Surrogate}/gu, ""))),
  fc.constantFrom("%ff", "%00", "%", "%2e%2e", "%ed%a0%80", ".", ";", "toString"),
);
const filled = (path: string) =>
  fc.array(piece, { minLength: 3, maxLength: 3 }).map((ps) => path.replace(/:\w+\??|\*/g, () => ps.shift() ?? "1"));
const query = fc
  .array(
    fc.tuple(
      fc.constantFrom("find", "board", "page", "like", "for", "at", "of", "whole", "number", "q", "material", "step", "index", "_routes"),
      piece,
    ),
    { maxLength: 3 },
  )
  .map((q) => q.map(([k, v]) => `${k}=${v}`).join("&"));
const method = fc.oneof(
  { weight: 12, arbitrary: fc.constant("POST") },
  { weight: 1, arbitrary: fc.constantFrom("PUT", "DELETE", "PATCH", "OPTIONS", "TRACE") },
);

/** Answers, many at a time. */
async function askAll(keeper: Keeper, asked: readonly Asked[], faults: string[]): Promise<Record<string, number>> {
  const by: Record<string, number> = {};
  const queue = [...asked];
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      for (let one = queue.pop(); one; one = queue.pop()) {
        const { status, text } = await ask(keeper.open.url, one);
        const kind = status === 0 ? "ended" : `${Math.floor(status / 100)}xx`;
        by[kind] = (by[kind] ?? 0) + 1;
        const told = `${one.method} ${one.path.slice(0, 120)} ${one.body?.toString().slice(0, 300) ?? ""}`;
        if (status >= 500) faults.push(`${status}: ${told}`);
        if (/must be a `|is a required field|Unexpected (token|end)|TypeError/.test(text))
          faults.push(`in another's words: ${told}: ${text.slice(0, 200)}`);
      }
    }),
  );
  return by;
}

export async function hostile(keeper: Keeper, { seed, times }: Turns): Promise<Found> {
  const { all, acting } = await addresses();
  const faults: string[] = [];
  const own = (url: string): Record<string, string> => ({ host: new URL(url).host });
  const posts = fc
    .sample(
      fc.constantFrom(...acting).chain(({ path, buttons }) => fc.tuple(filled(path), query, method, bodyFor(buttons), fc.boolean())),
      { seed, numRuns: POSTS * times },
    )
    .map(([path, q, m, b, asData]): Asked => ({
      method: m,
      path: `${path}${asData ? ".data" : ""}${q ? `?${q}` : ""}`,
      headers: { ...own(keeper.open.url), ...(b.type ? { "content-type": b.type } : {}), "content-length": String(b.bytes.length) },
      body: b.bytes,
    }));
  const gets = fc
    .sample(
      fc.tuple(fc.constantFrom(...all, "/__manifest", "/demo/__manifest", "/assets/x", "/nowhere").chain(filled), query, fc.boolean()),
      { seed, numRuns: GETS * times },
    )
    .map(([path, q, asData]): Asked => ({
      method: "GET",
      path: `${path}${asData ? ".data" : ""}${q ? `?${q}` : ""}`,
      headers: own(keeper.open.url),
      body: null,
    }));
  const postBy = await askAll(keeper, posts, faults);
  const getBy = await askAll(keeper, gets, faults);
  // Junk by the megabyte: refused by its length, or as it comes.
  const quiet = keeper.memory();
  const junk = Buffer.alloc(10_000_000, "x");
  for (let i = 0; i < (JUNK_MB * times) / 10; i++)
    await ask(keeper.open.url, {
      method: "POST",
      path: ["/demo/shelf/receive", "/demo/drafts", "/demo/shelf/receive/file", "/demo/jars/1/photo"][i % 4]!,
      headers: {
        ...own(keeper.open.url),
        "content-type": i % 4 === 3 ? "multipart/form-data; boundary=x" : "application/json",
        ...(i % 2 ? {} : { "content-length": String(junk.length) }),
      },
      body: junk,
    });
  const grown = Math.round(keeper.memory() - quiet);
  if (grown > 200) faults.push(`the server grew by ${grown} MB over ${JUNK_MB * times} MB of junk`);
  if (keeper.fell > 0) faults.push("the server fell");
  return {
    figures: {
      posts: posts.length,
      "posts answered": Object.entries(postBy)
        .sort()
        .map(([k, n]) => `${k} ${n}`)
        .join(", "),
      gets: gets.length,
      "gets answered": Object.entries(getBy)
        .sort()
        .map(([k, n]) => `${k} ${n}`)
        .join(", "),
      "MB of junk": JUNK_MB * times,
      "grown by, MB": grown,
    },
    faults,
  };
}
