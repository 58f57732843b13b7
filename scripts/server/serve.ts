/** The web server: loopback only, because there is no access control yet. Each workshop's pages are under their own path. */
import express, { type ErrorRequestHandler, type RequestHandler } from "express";
import type { Server } from "node:http";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import sirv from "sirv";
import type { pagesOf } from "#app/server/pages.server.ts";
import type { Serving } from "#app/server/workshop.server.ts";
import { SERVED, workshopOf, WORKSHOPS, type WorkshopKind } from "#core/workshop";
import { databaseOutage } from "#db/outage";
import type { Backups } from "#db/backups/backups";
import type { Workshops } from "#db/workshops/workshops";
import type { Bench } from "#devices/wire";
import { gate, LOOPBACK } from "./gate.ts";
import { headers } from "./headers.ts";
import { looking } from "./looking.ts";
import { steady } from "./steady.ts";

/** @throws Error for any address other people could reach */
export function loopbackOnly(host: string): string {
  if (!LOOPBACK.test(host))
    throw new Error(`Zelbin listens on this machine only (127.0.0.1); ${host} is refused until it has access control.`);
  return host;
}

const OPEN = "zelbin-open";
const YEAR_S = 365 * 86_400;
/** The workshop this browser last had open. */
const lastOpen = (cookies: string | undefined): string | undefined => new RegExp(`(?:^|; )${OPEN}=(\\w+)`).exec(cookies ?? "")?.[1];

/** An address without a workshop leads to the one last open, else to one's own once there is one. */
function toWorkshop(house: Workshops): RequestHandler {
  return async (req, res) => {
    const last = lastOpen(req.headers.cookie);
    const kind: WorkshopKind = last !== "demo" && (await house.of("own")) ? "own" : "demo";
    if (req.method === "GET" || req.method === "HEAD") res.redirect(302, WORKSHOPS[kind].home + req.originalUrl);
    else res.status(404).type("text").send("Nothing is kept at this address: it names no workshop.");
  };
}

const OF_ONES_OWN = /^\/look\/(backups|workshops)(\/|\.data|$)/;

/** Whatever is thrown outside the pages: said in our words, without how we are built. */
const lastWord: ErrorRequestHandler = (e: unknown, _req, res, next) => {
  if (res.headersSent) {
    next(e);
    return;
  }
  const out = databaseOutage(e);
  if (!out) console.error(e);
  res
    .status(out?.status ?? 500)
    .type("text")
    .send(out?.say ?? "Something went wrong. What was kept before is safe.");
};

/** A post that takes longer is broken off; the largest file is a second's work on this machine. */
const LONGEST_REQUEST_MS = 60_000;

interface Around {
  host?: string;
  /** What is on the bench. */
  bench?: Bench | null;
  backups?: Backups | null;
}

/** Serves the built application against the workshops of a house. */
export async function serve(
  house: Workshops,
  port: number,
  { host = "127.0.0.1", bench = null, backups = null }: Around = {},
): Promise<{ url: string; close: () => Promise<void> }> {
  loopbackOnly(host);
  const built = (await import(pathToFileURL(resolve("build/server/index.js")).href)) as { pagesOf: typeof pagesOf };
  // Here and not in what is built: where the database is on disk is known to this side of it only.
  const pages = built.pagesOf((build, kind) => (kind === "look" ? looking(steady(build)) : steady(build)));
  const app = express();
  app.disable("x-powered-by");
  app.use(...headers, ...gate);
  // Compressed when they were built (vite.config.ts); pages never leave this machine, so compressing them only costs time.
  app.use("/assets", sirv("build/client/assets", { immutable: true, maxAge: YEAR_S, gzip: true, brotli: true }));
  app.use(sirv("build/client", { maxAge: 3600, etag: true, gzip: true, brotli: true }));
  const outside = toWorkshop(house);
  app.use(async (req, res, next) => {
    const kind = workshopOf(req.path);
    if (!kind) {
      outside(req, res, next);
      return;
    }
    const db = await house.of(kind);
    if (kind === "look" && (!db || OF_ONES_OWN.test(req.path))) {
      // What is done with backups and workshops is done from one's own.
      res.redirect(302, WORKSHOPS.own.home + (db ? req.originalUrl.slice(SERVED.look.home.length) : "/backups"));
      return;
    }
    if (!db) {
      res.redirect(302, `${WORKSHOPS.demo.home}/workshops`);
      return;
    }
    if (kind !== "look" && req.headers.accept?.includes("text/html") && lastOpen(req.headers.cookie) !== kind)
      res.cookie(OPEN, kind, { path: "/", maxAge: YEAR_S * 1000, sameSite: "lax", httpOnly: true });
    res.locals.serving = { kind, db, house, bench, backups } satisfies Serving;
    await pages[kind](req, res, next);
  });
  app.use(lastWord);
  const server = await new Promise<Server>((done, fail) => {
    const s = app.listen(port, host, (error?: Error) => (error ? fail(error) : done(s)));
  });
  server.requestTimeout = LONGEST_REQUEST_MS;
  return {
    url: `http://${host}:${port}`,
    close: () =>
      new Promise((done) => {
        server.close(() => done());
        server.closeAllConnections();
      }),
  };
}
