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

/** How long a page took, how long an empty one, and all its queries one after the other, prepared: in milliseconds. */
export interface Took {
  page: number;
  empty: number;
  prepared: number;
}

/** One page in one workshop. */
export interface Row extends Took {
  /** Each time just after something was written: what was cached has to be asked again. */
  written: Took;
  /** Gone to from another page, which asks for what is on it and draws it by itself; and that just after something was written. */
  goneTo: Took;
  goneToWritten: Took;
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

/**
 * Where a page within is asked for what is on it.
 * @example dataOf("/shelf?board=oil") // "/shelf.data?board=oil"
 */
const dataOf = (path: string): string => path.replace(/^\/([^?]*)/, (_, page: string) => `/${page || "_root"}.data`);

const took = async (work: () => Promise<unknown>): Promise<number> => {
  const start = performance.now();
  await work();
  return performance.now() - start;
};

/** Fetches pages of a site over one keep-alive connection. */
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
    // With the caches warm: what every page asks again.
    const html = await fetchPage(path);
    const asked = [...heard];
    // A separate transaction, which is all that is looked at.
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
      does: {
        page: () => fetchPage(path),
        empty: () => fetchPage("/empty"),
        data: () => fetchPage(dataOf(path)),
        emptyData: () => fetchPage(dataOf("/empty")),
        prepared: all(asked),
        preparedAnew: all(askedAnew),
      },
      times: new Map<string, number[]>(),
    });
  }
  for (const w of works) for (const work of Object.values(w.does)) for (let i = 0; i < WARM_UP; i++) await work();
  for (let b = 0; b < BLOCKS; b++) {
    for (const [anew, times] of [
      ["", IN_A_BLOCK],
      ["Anew", IN_A_BLOCK / 2],
    ] as const)
      for (const what of ["page", "empty", "data", "emptyData", "prepared"] as const)
        for (const w of works)
          for (let i = 0; i < times; i++) {
            if (anew) await w.write();
            const ms = await took(anew && what === "prepared" ? w.does.preparedAnew : w.does[what]);
            w.times.set(what + anew, [...(w.times.get(what + anew) ?? []), ms]);
          }
  }
  return works.map(({ kB, shown, asked, slowest, times }) => {
    const ms = (what: string): number => median(times.get(what)!);
    const of = (page: string, empty: string, anew = ""): Took => ({
      page: ms(page + anew),
      empty: ms(empty + anew),
      prepared: ms(`prepared${anew}`),
    });
    return {
      ...of("page", "empty"),
      written: of("page", "empty", "Anew"),
      goneTo: of("data", "emptyData"),
      goneToWritten: of("data", "emptyData", "Anew"),
      longest: slowest.ms,
      slowest: slowest.sql,
      count: asked.length,
      kB,
      shown,
    };
  });
}

/** A page's time over an empty page and its queries. */
export const ratio = (r: Took): number => r.page / (r.empty + r.prepared);
