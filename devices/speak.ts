/**
 * A simulated device as a program: it listens on this machine, sends what it shows several times a second to everybody connected, and
 * answers commands, a line at a time. /
 */
import { lineCutter } from "#core/device/lines";
import { createServer, type Socket } from "node:net";

/** How often it says what it shows. */
export const EVERY_MS = 200;

export interface Speaking {
  hello: string;
  /** Lets time go by. */
  pass: (ms: number) => void;
  /** What it says just now. */
  says: () => string;
  /** Does what it is told. @returns whether it did */
  told: (line: string) => boolean;
}

/** @param port 0 for any that is free @returns where it listens, and how to pull its plug */
export function speak(device: Speaking, port: number): Promise<{ port: number; close: () => void }> {
  const plugged = new Set<Socket>();
  const server = createServer((socket) => {
    plugged.add(socket);
    const cut = lineCutter();
    socket.setEncoding("utf8");
    socket.write(`${device.hello}\n`);
    socket.on("data", (piece) => {
      for (const line of cut(String(piece)))
        socket.write(`${device.told(line.trim()) ? "done" : "no"} ${/^[a-z]*/.exec(line.trim())![0] || "what"}\n`);
    });
    const gone = (): void => void plugged.delete(socket);
    socket.on("close", gone).on("error", gone);
  });
  let last = performance.now();
  const tick = setInterval(() => {
    const now = performance.now();
    device.pass(now - last);
    last = now;
    const line = `${device.says()}\n`;
    for (const socket of plugged) socket.write(line);
  }, EVERY_MS);
  const close = (): void => {
    clearInterval(tick);
    server.close();
    for (const socket of plugged) socket.destroy();
  };
  return new Promise((done, fail) => {
    server.once("error", fail);
    server.listen(port, "127.0.0.1", () => {
      const at = server.address();
      done({ port: typeof at === "object" && at ? at.port : port, close });
    });
  });
}

/** Runs one as a program: prints where it listens, and ends when its parent is gone. */
export async function run(device: Speaking): Promise<void> {
  const { port } = await speak(device, Number(process.argv[2] ?? 0));
  console.log(`listening ${port}`);
  process.stdin.on("end", () => process.exit(0)).resume();
}
