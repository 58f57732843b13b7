/**
 * Writes a page as HTML, in the framework's documented way. A page is sent once it is whole: nothing here is loaded late, and drawn before its
 * last row is read its tables would move as they grow.
 */
import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { renderToPipeableStream } from "react-dom/server";
import { ServerRouter, type EntryContext, type RouterContextProvider } from "react-router";
import { nonceContext, NonceContext } from "./server/nonce.ts";

/** What takes longer to be written is broken off. */
export const streamTimeout = 5000;

export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
  loadContext: RouterContextProvider,
): Promise<Response> | Response {
  headers.set("Content-Type", "text/html; charset=utf-8");
  if (request.method === "HEAD") return new Response(null, { status, headers });
  const nonce = loadContext.get(nonceContext);
  return new Promise((done, fail) => {
    const { pipe, abort } = renderToPipeableStream(
      <NonceContext value={nonce}>
        <ServerRouter context={context} url={request.url} nonce={nonce} />
      </NonceContext>,
      {
        nonce,
        onAllReady: () => {
          const body = new PassThrough({
            final: (end) => {
              clearTimeout(late);
              end();
            },
          });
          pipe(body);
          done(new Response(createReadableStreamFromReadable(body), { status, headers }));
        },
        onShellError: fail,
      },
    );
    const late = setTimeout(abort, streamTimeout + 1000);
  });
}
