/** Measuring a page: its server time, an empty page's, and its bare queries', on the same machine in the same run. */
import { createHash } from "node:crypto";
import { Agent, get } from "node:http";
import pg from "pg";

export const ROUNDS = 60;
const WARM_UP = 15;

export interface Asked {
  sql: string;
  params: unknown[];
}

export interface Row {
  name: string;
  page: number;
  empty: number;
  /** All queries of the page one after the other: as they are, and prepared, without the time to plan them. */
  queries: number;
  prepared: number;
  /** The longest of them, planning included. */
  longest: number;
  count: number;
}

export const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)]!;

/** Median milliseconds of some work over the rounds. */
export async function timed(work: () => Promise<unknown>, rounds = ROUNDS): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < rounds + WARM_UP; i++) {
    const start = performance.now();
    await work();
    if (i >= WARM_UP) times.push(performance.now() - start);
  }
  return median(times);
}

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

/**
 * Measures a page. The empty page is measured again beside every one, so that a slow moment of the machine falls on both.
 * @param heard what the database was asked; emptied first
 */
export async function measure(
  name: string,
  path: string,
  fetchPage: (path: string) => Promise<string>,
  heard: Asked[],
  client: pg.Client,
): Promise<Row> {
  heard.length = 0;
  await fetchPage(path);
  const asked = [...heard];
  const page = await timed(() => fetchPage(path));
  const empty = await timed(() => fetchPage("/empty"));
  const plain = (q: Asked) => client.query(q.sql, q.params);
  const ready = (q: Asked) => client.query({ name: createHash("md5").update(q.sql).digest("hex"), text: q.sql, values: q.params });
  const all = (ask: (q: Asked) => Promise<unknown>) =>
    timed(async () => {
      for (const q of asked) await ask(q);
    });
  const queries = await all(plain);
  const prepared = await all(ready);
  const each: number[] = [];
  for (const q of asked) each.push(await timed(() => plain(q), 15));
  return { name, page, empty, queries, prepared, longest: Math.max(0, ...each), count: asked.length };
}

const cell = (n: number): string => n.toFixed(1).padStart(7);
export const HEAD = "station              page   empty  queries      sum   page / sum   with prepared ones   longest query";

/** One line of the table. */
export const lineOf = (r: Row): string =>
  `${r.name.padEnd(17)}${cell(r.page)} ${cell(r.empty)} ${cell(r.queries)} (${String(r.count).padStart(2)}) ${cell(r.empty + r.queries)} ${ratio(r).toFixed(2).padStart(7)} ${(r.page / (r.empty + r.prepared)).toFixed(2).padStart(15)} ${cell(r.longest)}`;

/** A page's time over an empty page and its queries. */
export const ratio = (r: Row): number => r.page / (r.empty + r.queries);
