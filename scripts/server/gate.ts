/**
 * What every request must pass before any route sees it: it comes for this machine, in a way a page of ours would ask, from no other site, and
 * no larger than what is read here. One place, so that a route that is added is behind it too.
 */
import type { Request, RequestHandler, Response } from "express";
import { MOST_BYTES } from "#db/attachments/attachments";

export const LOOPBACK = /^(127(\.\d{1,3}){3}|localhost|\[::1\]|::1)$/;

const refuse = (res: Response, status: number, say: string): void => {
  // What is left of a body that isn't wanted is not read to its end.
  res.status(status).set("Connection", "close").type("text").send(say);
};

/** The name a request was sent to, read as an address is; null where it can't be: no such port, no such number. */
function nameIn(host: string): string | null {
  try {
    const { hostname, pathname, username } = new URL(`http://${host}/`);
    return pathname === "/" && username === "" ? hostname : null;
  } catch {
    return null;
  }
}

/** A page elsewhere must not reach this server under a host name that points at loopback. */
const forThisMachine: RequestHandler = (req, res, next) => {
  const name = nameIn(req.get("host") ?? "");
  if (name === null) refuse(res, 400, "That isn't a name Zelbin could have.");
  else if (LOOPBACK.test(name)) next();
  else refuse(res, 403, "Zelbin answers on this machine only.");
};

const ASKS = new Set(["GET", "HEAD", "POST"]);
const byAMethodOfOurs: RequestHandler = (req, res, next) => {
  if (ASKS.has(req.method)) next();
  else {
    res.set("Allow", [...ASKS].join(", "));
    refuse(res, 405, "Nothing here answers to that.");
  }
};

/** The router asks for the routes of many links at once in up to 7 680 characters; nothing of ours is longer. */
const LONGEST_ADDRESS = 8000;

/** An address as it is read: null where it isn't UTF-8, or has characters no text has. */
function addressOf(url: string): string | null {
  try {
    const read = decodeURIComponent(url.replaceAll("+", " "));
    return read.includes("\0") ? null : read;
  } catch {
    return null;
  }
}

const atAnAddress: RequestHandler = (req, res, next) => {
  // A whole address, as a proxy is asked, or one that names another server, is no page of ours.
  if (!/^\/(?!\/|\\)/.test(req.url)) refuse(res, 400, "That address can't be read.");
  else if (req.url.length > LONGEST_ADDRESS) refuse(res, 414, "That address is too long.");
  else if (addressOf(req.url) === null) refuse(res, 400, "That address can't be read.");
  else next();
};

/**
 * Whether a request that may change something comes from a page of ours. Browsers say so in `Sec-Fetch-Site`, the older ones in `Origin`, and a
 * page can forge neither; what says neither is no browser, and acts for nobody but who started it.
 */
function fromOurs(req: Request): boolean {
  const site = req.get("sec-fetch-site");
  if (site !== undefined && site !== "same-origin") return false;
  const origin = req.get("origin");
  return origin === undefined || origin === `http://${req.get("host")}`;
}

const fromNoOtherSite: RequestHandler = (req, res, next) => {
  if (req.method !== "POST" || fromOurs(req)) next();
  else refuse(res, 403, "That was sent from a page that isn't Zelbin's. Nothing was done.");
};

const MB = 1_000_000;
/** What may be posted: files where they are saved, tables where they are read, sheets everywhere. */
const KINDS = [
  { type: "application/zip", at: /\/backups\/take-in(\.data)?$/, most: 8000 * MB, what: "An archive" },
  { type: "multipart/form-data", at: /\/((jars|bench)\/\d+\/photo|shelf\/receipts\/\d+)(\.data)?$/, most: MOST_BYTES + MB, what: "A file" },
  {
    type: "application/json",
    at: /\/(receive|opening|shelf|people|cabinet|recipes|prices|markets|gifts)\/file(\.data)?$/,
    most: 25 * MB,
    what: "A table",
  },
  { type: "application/json", at: /./, most: 2 * MB, what: "A sheet" },
] as const;

const noLargerThanWanted: RequestHandler = (req, res, next) => {
  if (req.method !== "POST") {
    next();
    return;
  }
  const type = (req.get("content-type") ?? "").split(";")[0]!.trim().toLowerCase();
  const kind = KINDS.find((k) => k.type === type && k.at.test(req.path));
  const length = req.get("content-length");
  if (!kind) refuse(res, 415, "Nothing of that kind is kept at this address.");
  else if (length === undefined) refuse(res, 411, "Say how long it is before it is sent.");
  else if (Number(length) > kind.most) refuse(res, 413, `${kind.what} of over ${kind.most / MB} MB isn't taken in. Nothing was kept.`);
  else next();
};

/** The gate, in the order it is passed. */
export const gate: readonly RequestHandler[] = [forThisMachine, byAMethodOfOurs, atAnAddress, fromNoOtherSite, noLargerThanWanted];
