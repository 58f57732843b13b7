/** The web server: loopback only, because there is no access control yet. */
import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express from "express";
import type { ServerBuild } from "react-router";
import type { Server } from "node:http";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import type { OpenDb } from "#db/client";

const LOOPBACK = /^(127(\.\d{1,3}){3}|localhost|\[::1\]|::1)$/;

/** @throws Error for any address other people could reach */
export function loopbackOnly(host: string): string {
  if (!LOOPBACK.test(host))
    throw new Error(`Zelbin listens on this machine only (127.0.0.1); ${host} is refused until it has access control.`);
  return host;
}

/** Serves the built application against a database. */
export async function serve(db: OpenDb, port: number, host = "127.0.0.1"): Promise<{ url: string; close: () => Promise<void> }> {
  loopbackOnly(host);
  globalThis.zelbinDb = db;
  const build = (await import(pathToFileURL(resolve("build/server/index.js")).href)) as ServerBuild;
  const app = express();
  app.disable("x-powered-by");
  // A page elsewhere must not reach this server under a name of its own that points at loopback.
  app.use((req, res, next) => {
    if (LOOPBACK.test(req.hostname)) next();
    else res.status(403).type("text").send("Zelbin answers on this machine only.");
  });
  // Scripts are compressed once and kept by the browser; pages never leave this machine, so compressing them only costs time.
  app.use("/assets", compression(), express.static(join("build/client/assets"), { immutable: true, maxAge: "1y" }));
  app.use(express.static("build/client", { maxAge: "1h" }));
  app.use(createRequestHandler({ build, mode: "production" }));
  const server = await new Promise<Server>((done, fail) => {
    const s = app.listen(port, host, (error?: Error) => (error ? fail(error) : done(s)));
  });
  return {
    url: `http://${host}:${port}`,
    close: () =>
      new Promise((done) => {
        server.close(() => done());
        server.closeAllConnections();
      }),
  };
}
