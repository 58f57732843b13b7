/**
 * The reading end of a device's line: connects as soon as it can, and again whenever the device comes back; listeners hear what it shows,
 * and that it is gone. The real one over a serial line would stand behind the same face. /
 */
import { lineCutter, readLine, type HeatReading, type Hello, type ScaleReading } from "#core/device/lines";
import { connect, type Socket } from "node:net";

/** What is known of a device. `reading` is null before its first word. */
export interface Plugged<R> {
  hello: Hello | null;
  reading: R | null;
}
/** What was shown, and when (milliseconds of this machine's clock). */
export interface Shown<R> {
  at: number;
  reading: R;
}
/** Null while it is unplugged. */
export type State<R> = Plugged<R> | null;

export interface Wire<R> {
  now: () => State<R>;
  /** What it showed, every few seconds, as far back as is stored; it outlives a page that is reloaded. */
  past: () => readonly Shown<R>[];
  /** Calls with every change. @returns how to stop */
  hear: (listener: (state: State<R>) => void) => () => void;
  /** Tells it something. @returns whether it did; false too while it is unplugged */
  tell: (line: string) => Promise<boolean>;
  close: () => void;
}

const AGAIN_MS = 1000;
/** Silent for so long, it is as good as unplugged. */
const SILENT_MS = 2500;
const ANSWERS_MS = 1000;
/** One reading in so long is stored, for forty minutes. */
const KEPT_EVERY_MS = 5000;
const KEPT = 480;

/** What each kind of line shows. */
interface Shows {
  weight: ScaleReading;
  heat: HeatReading;
}

/** @param where the port it listens at, null while that isn't known @example openWire("weight", () => 5101) */
export function openWire<K extends keyof Shows>(of: K, where: () => number | null): Wire<Shows[K]> {
  type R = Shows[K];
  const listeners = new Set<(state: State<R>) => void>();
  const past: Shown<R>[] = [];
  const waiting: ((done: boolean) => void)[] = [];
  let state: State<R> = null;
  let socket: Socket | null = null;
  let closed = false;
  const say = (next: State<R>): void => {
    state = next;
    for (const listener of listeners) listener(state);
  };
  const gone = (): void => {
    if (!socket) return;
    socket.destroy();
    socket = null;
    for (const answer of waiting.splice(0)) answer(false);
    if (state) say(null);
  };
  const plug = (): void => {
    const port = where();
    if (closed || socket || port === null) return;
    const own = connect(port, "127.0.0.1");
    socket = own;
    const cut = lineCutter();
    own.setEncoding("utf8");
    own.setTimeout(SILENT_MS);
    own.on("data", (piece) => {
      for (const line of cut(String(piece))) {
        const said = readLine(line);
        if (said?.of === "hello") say({ hello: said.hello, reading: state?.reading ?? null });
        else if (said?.of === "answer") waiting.shift()?.(said.done);
        else if (said?.of === of) {
          const reading = said.reading as R;
          const at = Date.now();
          if (at - (past.at(-1)?.at ?? 0) >= KEPT_EVERY_MS) past.push({ at, reading });
          if (past.length > KEPT) past.shift();
          say({ hello: state?.hello ?? null, reading });
        }
      }
    });
    const lost = (): void => {
      if (socket === own) gone();
    };
    own.on("close", lost).on("error", lost).on("timeout", lost);
  };
  plug();
  const again = setInterval(plug, AGAIN_MS);
  again.unref();
  return {
    now: () => state,
    past: () => past,
    hear: (listener) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    tell: (line) => {
      const own = socket;
      if (!own || !state) return Promise.resolve(false);
      return new Promise((done) => {
        const answer = (did: boolean): void => {
          clearTimeout(late);
          done(did);
        };
        const late = setTimeout(() => {
          waiting.splice(waiting.indexOf(answer), 1);
          done(false);
        }, ANSWERS_MS);
        waiting.push(answer);
        own.write(`${line}\n`);
      });
    },
    close: () => {
      closed = true;
      clearInterval(again);
      gone();
    },
  };
}

/** What is on the bench. */
export interface Bench {
  scale: Wire<ScaleReading>;
  thermometer: Wire<HeatReading>;
}
