/** Keeps a server in a separate process, starts it again when it was killed, and counts when it went down by itself. */
import { spawn, type ChildProcess } from "node:child_process";
import { mkdirSync, readFileSync, realpathSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as pause } from "node:timers/promises";
import { startCluster } from "../cluster/cluster.ts";
import { DATA, freePort } from "../places.ts";

interface Open {
  url: string;
  database: string;
}

export class Keeper {
  readonly #folder: string;
  #child: ChildProcess | null = null;
  #meant = false;
  /** How often it ended though nobody had ended it. */
  fell = 0;
  open: Open = { url: "", database: "" };

  constructor(name: string) {
    mkdirSync(DATA, { recursive: true });
    this.#folder = join(DATA, name);
  }

  /** Begins a first start and cuts it off after so long. */
  async cutOff(ms: number): Promise<void> {
    const child = spawn(process.execPath, ["--import", "tsx", "scripts/torture/house.ts", this.#folder, "0"], { stdio: "ignore" });
    const gone = new Promise((done) => child.once("exit", done));
    await new Promise((done) => setTimeout(done, ms));
    child.kill("SIGKILL");
    await gone;
  }

  async start(): Promise<void> {
    const port = this.open.url ? Number(new URL(this.open.url).port) : await freePort();
    this.#meant = false;
    const child = spawn(process.execPath, ["--import", "tsx", "scripts/torture/house.ts", this.#folder, String(port)], {
      stdio: ["ignore", "pipe", "pipe"],
      env: { ...process.env, NODE_ENV: "production" },
    });
    this.#child = child;
    let said = "";
    child.stderr.on("data", (d: Buffer) => (said = (said + d.toString()).slice(-4000)));
    this.open = await new Promise<Open>((done, fail) => {
      child.stdout.on("data", (d: Buffer) => {
        const line = d
          .toString()
          .split("\n")
          .find((l) => l.startsWith("{"));
        if (line) done(JSON.parse(line) as Open);
      });
      child.on("exit", (code) => {
        if (!this.#meant) this.fell++;
        fail(new Error(`The server ended with ${code}:\n${said}`));
      });
    });
  }

  async killServer(): Promise<void> {
    this.#meant = true;
    const child = this.#child!;
    const gone = new Promise((done) => child.once("exit", done));
    child.kill("SIGKILL");
    await gone;
    await this.start();
  }

  /** Kills the one that runs; on a busy machine the last one's number may stand there a while after it is gone. */
  async killPostmaster(): Promise<void> {
    for (let tries = 1; ; tries++)
      try {
        process.kill(Number(readFileSync(join(this.home, "postmaster.pid"), "utf8").split("\n")[0]), "SIGKILL");
        return;
      } catch (e) {
        if (tries === 100) throw e;
        await pause(100);
      }
  }

  /** Memory the server holds, in MB. */
  memory(): number {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${this.#child!.pid!}/status`, "utf8"))![1]) / 1024;
  }

  /** Where its cluster is. */
  get home(): string {
    return realpathSync(this.#folder);
  }

  async stop(): Promise<void> {
    this.#meant = true;
    const child = this.#child;
    if (child?.exitCode === null && child.signalCode === null) {
      const gone = new Promise((done) => child.once("exit", done));
      child.kill("SIGTERM");
      await gone;
    }
  }

  /** Ends it, and takes its cluster away. */
  async remove(): Promise<void> {
    await this.stop();
    // Left running where the server fell: taken over, to be stopped.
    (await startCluster(this.#folder, true)).stop();
  }
}
