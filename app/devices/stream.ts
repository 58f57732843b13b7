/** Streams what the scale and the thermometer show, as it changes, to a page for as long as it is open. */
import type { Bench } from "#devices/wire";
import { benchShows, serving } from "../server/workshop.server.ts";
import type { Route } from "./+types/stream";

/** Heartbeat: how often something is sent, so that a closed connection is noticed. */
const ALIVE_MS = 10_000;

export function loader({ request }: Route.LoaderArgs) {
  // A caller that doesn't listen to a stream would wait for its end, which never comes.
  if (!request.headers.get("accept")?.includes("text/event-stream")) throw new Response("Ask for text/event-stream", { status: 406 });
  const bench = serving().bench ?? null;
  const words = new TextEncoder();
  let stop = (): void => undefined;
  const body = new ReadableStream<Uint8Array>({
    start: (to) => {
      const last = new Map<string, string>();
      const say = (of: keyof Bench, what: object): void => {
        const text = JSON.stringify({ of, ...what });
        if (last.get(of) === text) return;
        last.set(of, text);
        to.enqueue(words.encode(`data: ${text}\n\n`));
      };
      // What it has shown comes with the first word.
      const past =
        bench?.thermometer.past().flatMap((p) => (p.reading.celsius === null ? [] : [{ at: p.at, celsius: p.reading.celsius }])) ?? [];
      const now = benchShows();
      say("scale", { state: now.scale });
      say("thermometer", { state: now.thermometer, past });
      const hush = bench
        ? [bench.scale.hear((state) => say("scale", { state })), bench.thermometer.hear((state) => say("thermometer", { state }))]
        : [];
      const alive = setInterval(() => to.enqueue(words.encode(": here\n\n")), ALIVE_MS);
      stop = () => {
        clearInterval(alive);
        for (const h of hush) h();
      };
      request.signal.addEventListener("abort", () => {
        stop();
        try {
          to.close();
        } catch {
          // It was closed from the other end.
        }
      });
    },
    cancel: () => stop(),
  });
  return new Response(body, { headers: { "content-type": "text/event-stream; charset=utf-8", "cache-control": "no-store" } });
}
