/**
 * Renders a page whole, as one text: nothing here is loaded late, so that streaming it would only cost time, and React writes a text in much
 * less of it than a stream. What the loaders read, which the framework would stream behind the page, is put there by its own protocol.
 */
import { renderToString } from "react-dom/server";
import { ServerRouter, type AppLoadContext, type EntryContext } from "react-router";
import { NonceContext } from "./server/nonce.ts";

/** Text in a script: nothing in it ends the script, whatever is in the data. */
const inScript = (text: string): string =>
  JSON.stringify(text).replace(/[&><\u2028\u2029]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, "0")}`);

async function handoff(stream: ReadableStream<Uint8Array> | undefined, nonce: string | undefined): Promise<string> {
  if (!stream) return "";
  const data = await new Response(stream).text();
  const to = "window.__reactRouterContext.streamController";
  return `<script nonce="${nonce ?? ""}">${to}.enqueue(${inScript(data)});${to}.close();</script>`;
}

export default async function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
  { nonce }: AppLoadContext,
): Promise<Response> {
  const data = await handoff(context.serverHandoffStream, nonce);
  const page = renderToString(
    <NonceContext value={nonce}>
      <ServerRouter context={{ ...context, serverHandoffStream: undefined }} url={request.url} nonce={nonce} />
    </NonceContext>,
  );
  headers.set("Content-Type", "text/html; charset=utf-8");
  return new Response(`<!DOCTYPE html>${page.replace(/<\/body><\/html>$/, "")}${data}</body></html>`, { status, headers });
}
