/**
 * The application as one request handler for each workshop: what the web server mounts (`scripts/server/serve.ts`), and what is built into
 * `build/server/index.js`. The server gives each request its workshop and its nonce by the framework's typed context.
 */
import { createRequestHandler, type RequestHandler } from "@react-router/express";
import * as build from "virtual:react-router/server-build";
import { RouterContextProvider, type ServerBuild } from "react-router";
import { SERVED, SERVED_KINDS, type ServedKind } from "#core/workshop";
import { nonceContext } from "./nonce.ts";
import { servingContext, type Serving } from "./workshop.server.ts";

/** What the web server puts into `res.locals` of a request before a handler sees it. */
export interface RequestLocals {
  serving: Serving;
  nonce: string;
}

/**
 * The pages of each workshop, under its own base path.
 * @param around what the web server puts around every loader and action
 */
export function pagesOf(around: (build: ServerBuild, kind: ServedKind) => ServerBuild): Record<ServedKind, RequestHandler> {
  const handlerOf = (kind: ServedKind): RequestHandler =>
    createRequestHandler({
      build: { ...around(build, kind), basename: SERVED[kind].home },
      mode: "production",
      getLoadContext: (_req, res) => {
        const { serving, nonce } = res.locals as RequestLocals;
        return new RouterContextProvider(
          new Map<object, unknown>([
            [servingContext, serving],
            [nonceContext, nonce],
          ]),
        );
      },
    });
  return Object.fromEntries(SERVED_KINDS.map((kind) => [kind, handlerOf(kind)])) as Record<ServedKind, RequestHandler>;
}

/** Every route, as it is built: a test goes through those that act. */
export const { routes } = build;
