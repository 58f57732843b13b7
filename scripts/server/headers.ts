/** What a browser may do with a page of ours: run our scripts and no others, be framed by nobody, guess no types, tell no other site. */
import helmet from "helmet";
import { randomBytes } from "node:crypto";
import type { RequestHandler } from "express";
import type { ServerResponse } from "node:http";

type Answering = ServerResponse & { locals?: { nonce?: string } };

/** A number for the scripts that stand in this one page; its answer has it among what is allowed. */
const numbered: RequestHandler = (_req, res, next) => {
  res.locals.nonce = randomBytes(16).toString("base64");
  next();
};

export const headers: readonly RequestHandler[] = [
  numbered,
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        // The solver of fills is WebAssembly, which counts as made at run time.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'", (_req, res) => `'nonce-${(res as Answering).locals!.nonce!}'`],
        // Charts and pop-ups place their parts by style.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", "data:", "blob:"],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        formAction: ["'self'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
        objectSrc: ["'none'"],
      },
    },
    // Not "no-referrer": a form of ours would then say it comes from nowhere.
    referrerPolicy: { policy: "same-origin" },
    xFrameOptions: { action: "deny" },
    // Loopback has no certificate to ask for.
    strictTransportSecurity: false,
  }),
];
