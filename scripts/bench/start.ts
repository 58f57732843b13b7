/** How long `npm start` takes to its first page when everything is there already: its second time. */
import { spawn } from "node:child_process";
import { once } from "node:events";

/** Starts it, asks for the first page, stops it. @returns milliseconds; null where it can't be started, as it runs already */
async function startOnce(): Promise<number | null> {
  const began = performance.now();
  const { PORT: _port, HOST: _host, DATABASE_URL: _url, ...env } = process.env;
  const started = spawn("npm", ["start"], { env, stdio: ["ignore", "pipe", "ignore"] });
  const ended = once(started, "exit");
  let said = "";
  const open = new Promise<string | null>((done) => {
    started.stdout.on("data", (text: Buffer) => {
      said += text.toString();
      const url = /open at (\S+)/.exec(said)?.[1];
      if (url) done(url);
    });
    void ended.then(() => done(null));
  });
  const url = await open;
  const page = url === null ? null : await fetch(url);
  await page?.text();
  const took = performance.now() - began;
  started.kill("SIGTERM");
  await ended;
  return page?.ok ? took : null;
}

export async function benchStart(): Promise<void> {
  await startOnce();
  const took = await startOnce();
  console.log(
    took === null
      ? "\nThe second start wasn't measured: Zelbin runs here already."
      : `\nSecond start to first page: ${(took / 1000).toFixed(1)} s (wanted: at most 3.5)`,
  );
}
