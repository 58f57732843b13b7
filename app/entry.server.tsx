/**
 * Renders a page whole and sends it in one piece. Nothing here is loaded late, so streaming in small chunks would only cost time.
 */
import { Writable } from "node:stream";
import { renderToPipeableStream } from "react-dom/server";
import { ServerRouter, type AppLoadContext, type EntryContext } from "react-router";
import { NonceContext } from "./nonce.ts";

export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
  { nonce }: AppLoadContext,
): Promise<Response> {
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    let code = status;
    const page = new Writable({
      write(chunk: Buffer, _encoding, next) {
        chunks.push(chunk);
        next();
      },
      final(next) {
        headers.set("Content-Type", "text/html; charset=utf-8");
        resolve(new Response(Buffer.concat(chunks), { status: code, headers }));
        next();
      },
    });
    const document = (
      <NonceContext value={nonce}>
        <ServerRouter context={context} url={request.url} nonce={nonce} />
      </NonceContext>
    );
    const { pipe } = renderToPipeableStream(document, {
      nonce,
      onAllReady: () => void pipe(page),
      onShellError: reject,
      onError(error) {
        code = 500;
        console.error(error);
      },
    });
  });
}
