/** Takes in an archive's file, sent as it is: written to disk as it comes, and read through before the page shows what is in it. */
import { Readable } from "node:stream";
import type { ReadableStream } from "node:stream/web";
import { withProgress } from "../forms/progress.server.ts";
import { refuseSheet, tokenIn, withRefusals } from "../forms/sheet.server.ts";
import { serving } from "../server/workshop.server.ts";
import type { Route } from "./+types/takeIn";

export async function action({ request }: Route.ActionArgs) {
  const { backups } = serving();
  const { body } = request;
  if (!backups || !body) return refuseSheet([{ field: "archive", say: "Choose an archive's file." }]);
  return withRefusals(async () => {
    // Two names for one stream: the browser's and Node's.
    const { id } = await withProgress(tokenIn(new URL(request.url).searchParams.get("token")), (progress) =>
      backups.takeIn(Readable.fromWeb(body as ReadableStream), {
        size: Number(request.headers.get("content-length") ?? 0),
        // Nobody waits for it who has gone away.
        signal: request.signal,
        onShare: (share) => progress(Math.round(share * 100), 100),
      }),
    );
    return Response.json({ id });
  });
}
