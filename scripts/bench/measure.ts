/**
 * Measuring a page in two workshops at once, a young one and one of five years: the server's time for it, for an empty page, and for its bare
 * queries, all taken in turns, so that a slow moment of the machine falls on each alike.
 */
import { createHash } from "node:crypto";
import { Agent, get } from "node:http";
import pg from "pg";

const BLOCKS = 6;
const IN_A_BLOCK = 10;
const WARM_UP = 12;

export interface Asked {
  sql: string;
  params: unknown[];
}

/** A workshop that is served: how to fetch its pages, what its database was asked, and a connection of one's own to ask it again. */
export interface Served {
  fetchPage: (path: string) => Promise<string>;
  heard: Asked[];
  client: pg.Client;
}

/** One page in one workshop, in milliseconds. */
export interface Row {
  page: number;
  empty: number;
  /** All its queries one after the other, prepared. */
  prepared: number;
  /** The same three, each time just after something was written: what is kept while nothing is has to be asked again. */
  written: { page: number; empty: number; prepared: number };
  /** The longest of them, planning included, and what it was. */
  longest: number;
  slowest: string;
  count: number;
  kB: number;
  /** Letters that are to be read on it. */
  shown: number;
}

/** What is to be read on a page: neither scripts nor tags. */
const readable = (html: string): number =>
  html
    .replace(/<(script|style)\b.*?<\/\1>/gs, "")
    .replace(/<[^>]+>/g, "")
    .replace(/\s+/g, " ").length;

export const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)]!;

const took = async (work: () => Promise<unknown>): Promise<number> => {
  const start = performance.now();
  await work();
  return performance.now() - start;
};

/** Fetches pages of a site over one kept connection. */
export function fetcher(url: string): (path: string) => Promise<string> {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  return (path) =>
    new Promise((done, fail) => {
      get(url + path, { agent }, (res) => {
        const parts: Buffer[] = [];
        res
          .on("data", (d: Buffer) => parts.push(d))
          .on("end", () =>
            res.statusCode === 200 ? done(Buffer.concat(parts).toString()) : fail(new Error(`${path}: ${res.statusCode}`)),
          );
      }).on("error", fail);
    });
}

/** The same page in each of several workshops. */
export async function measure(path: string, served: readonly Served[]): Promise<Row[]> {
  const works = [];
  for (const { fetchPage, heard, client } of served) {
    await fetchPage(path);
    heard.length = 0;
    // Once what is kept between pages is kept: what every page asks again.
    const html = await fetchPage(path);
    const asked = [...heard];
    // A transaction of its own, which is all that is looked at.
    const write = () => client.query("select pg_current_xact_id()");
    await write();
    heard.length = 0;
    await fetchPage(path);
    const askedAnew = [...heard];
    const ready = (q: Asked) => client.query({ name: createHash("md5").update(q.sql).digest("hex"), text: q.sql, values: q.params });
    const all = (queries: readonly Asked[]) => async (): Promise<void> => {
      for (const q of queries) await ready(q);
    };
    const each = [];
    for (const q of asked) {
      const times = [];
      for (let i = 0; i < 9; i++) times.push(await took(() => client.query(q.sql, q.params)));
      each.push({ ms: median(times), sql: q.sql });
    }
    const slowest = each.reduce((a, q) => (q.ms > a.ms ? q : a), { ms: 0, sql: "" });
    works.push({
      kB: Buffer.byteLength(html) / 1000,
      shown: readable(html),
      asked,
      slowest,
      write,
      does: { page: () => fetchPage(path), empty: () => fetchPage("/empty"), prepared: all(asked), preparedAnew: all(askedAnew) },
      times: { page: [], empty: [], prepared: [], pageAnew: [], emptyAnew: [], preparedAnew: [] } as Record<string, number[]>,
    });
  }
  for (const w of works) for (const work of Object.values(w.does)) for (let i = 0; i < WARM_UP; i++) await work();
  for (let b = 0; b < BLOCKS; b++) {
    for (const what of ["page", "empty", "prepared"] as const)
      for (const w of works) for (let i = 0; i < IN_A_BLOCK; i++) w.times[what]!.push(await took(w.does[what]));
    for (const [what, does] of [
      ["pageAnew", "page"],
      ["emptyAnew", "empty"],
      ["preparedAnew", "preparedAnew"],
    ] as const)
      for (const w of works)
        for (let i = 0; i < IN_A_BLOCK / 2; i++) {
          await w.write();
          w.times[what]!.push(await took(w.does[does]));
        }
  }
  return works.map(({ kB, shown, asked, slowest, times }) => ({
    page: median(times.page!),
    empty: median(times.empty!),
    prepared: median(times.prepared!),
    written: { page: median(times.pageAnew!), empty: median(times.emptyAnew!), prepared: median(times.preparedAnew!) },
    longest: slowest.ms,
    slowest: slowest.sql,
    count: asked.length,
    kB,
    shown,
  }));
}

/** A page's time over an empty page and its queries. */
export const ratio = (r: Pick<Row, "page" | "empty" | "prepared">): number => r.page / (r.empty + r.prepared);
