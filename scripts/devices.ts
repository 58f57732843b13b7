/** The simulated scale and thermometer, each a separate program: started, listened to, and ended with the program that starts them. */
import { spawn, type ChildProcess } from "node:child_process";
import { existsSync } from "node:fs";
import { join } from "node:path";
import { openWire, type Bench } from "#devices/wire";

const NAMES = ["scale", "thermometer"] as const;
type Name = (typeof NAMES)[number];

/** What `npm start` runs was put together beforehand (vite.start.ts); otherwise it is compiled as it is read. */
function programOf(name: Name): string[] {
  const built = join("build", "start", `${name}.js`);
  return import.meta.url.includes("/build/start/") && existsSync(built) ? [built] : ["--import", "tsx", join("devices", `${name}.ts`)];
}

export interface Devices extends Bench {
  /** The programs, to be unplugged one by one. */
  pids: Record<Name, number | undefined>;
  stop: () => void;
}

/** Starts both. They are there a moment later: nobody waits for them. */
export function startDevices(): Devices {
  const ports = new Map<Name, number>();
  const children = new Map<Name, ChildProcess>(
    NAMES.map((name) => {
      const child = spawn(process.execPath, programOf(name), { stdio: ["pipe", "pipe", "inherit"] });
      child.stdout.setEncoding("utf8").on("data", (text) => {
        const port = /^listening (\d+)/m.exec(String(text))?.[1];
        if (port) ports.set(name, Number(port));
      });
      // One that can't be started is one that isn't plugged in.
      child.on("error", () => undefined);
      return [name, child];
    }),
  );
  const scale = openWire("weight", () => ports.get("scale") ?? null);
  const thermometer = openWire("heat", () => ports.get("thermometer") ?? null);
  return {
    scale,
    thermometer,
    pids: { scale: children.get("scale")?.pid, thermometer: children.get("thermometer")?.pid },
    stop: () => {
      scale.close();
      thermometer.close();
      for (const child of children.values()) child.kill();
    },
  };
}
