/** The stream a page at the bench listens to: first what is, then what changes, each once, and nothing more once nobody listens. */
import type { HeatReading, ScaleReading } from "#core/device/lines";
import { mg } from "#core/measure/exact";
import type { Bench, Shown, State, Wire } from "#devices/wire";
import { afterEach, describe, expect, it } from "vitest";
import { serveOnly } from "../server/workshop.server.ts";
import { loader } from "./stream.ts";

/** A wire whose readings are said by hand. */
function wire<R>(past: Shown<R>[] = []) {
  const ears = new Set<(s: State<R>) => void>();
  let now: State<R> = null;
  const face: Wire<R> = {
    now: () => now,
    past: () => past,
    hear: (ear) => {
      ears.add(ear);
      return () => void ears.delete(ear);
    },
    tell: () => Promise.resolve(true),
    close: () => undefined,
  };
  const say = (next: State<R>): void => {
    now = next;
    for (const ear of ears) ear(next);
  };
  return { face, say, ears };
}

const weighs = (grams: number): State<ScaleReading> => ({
  hello: null,
  reading: { standing: "stable", net: true, weight: mg(grams * 1000) },
});

function listen(bench: Bench | null) {
  serveOnly({ bench });
  const gone = new AbortController();
  const answer = loader({
    request: new Request("http://127.0.0.1/devices/stream", { signal: gone.signal, headers: { accept: "text/event-stream" } }),
    params: {},
    context: {},
  } as never);
  const reader = answer.body!.getReader();
  const next = async (): Promise<Record<string, unknown> | null> => {
    const { value, done } = await reader.read();
    return done ? null : (JSON.parse(new TextDecoder().decode(value).replace(/^data: /, "")) as Record<string, unknown>);
  };
  return { next, leave: () => gone.abort(), type: answer.headers.get("content-type") };
}

afterEach(() => {
  serveOnly({});
});

describe("the devices' stream", () => {
  it("is nothing for those who would wait for its end", () => {
    const request = new Request("http://127.0.0.1/devices/stream", { headers: { accept: "*/*" } });
    expect(() => loader({ request, params: {}, context: {} } as never)).toThrow(expect.objectContaining({ status: 406 }));
  });
  it("says what is first, with the warmths so far; then each change once", async () => {
    const [scale, heat] = [
      wire<ScaleReading>(),
      wire<HeatReading>([
        { at: 5, reading: { celsius: 61 } },
        { at: 9, reading: { celsius: null } },
      ]),
    ];
    const { next, leave, type } = listen({ scale: scale.face, thermometer: heat.face });
    expect(type).toContain("text/event-stream");
    expect(await next()).toEqual({ of: "scale", state: null });
    expect(await next()).toEqual({ of: "thermometer", state: null, past: [{ at: 5, celsius: 61 }] });
    scale.say(weighs(40));
    scale.say(weighs(40));
    scale.say(weighs(41));
    expect([await next(), await next()]).toMatchObject([
      { state: { reading: { weight: 40_000 } } },
      { state: { reading: { weight: 41_000 } } },
    ]);
    scale.say(null);
    expect(await next()).toEqual({ of: "scale", state: null });
    leave();
    expect(await next()).toBeNull();
    expect([scale.ears.size, heat.ears.size]).toEqual([0, 0]);
  });
  it("where nothing stands on the bench both are unplugged", async () => {
    const { next, leave } = listen(null);
    expect([await next(), await next()]).toEqual([
      { of: "scale", state: null },
      { of: "thermometer", state: null, past: [] },
    ]);
    leave();
  });
});
