/** Running the tools of node_modules, one after another or beside each other. */
import { spawn } from "node:child_process";
import { join } from "node:path";

const children = new Set<ReturnType<typeof spawn>>();
export const endTools = (): void => children.forEach((child) => void child.kill());

/** Runs a tool of node_modules; its output is ours. */
export const run = (args: string[], env: NodeJS.ProcessEnv = {}): Promise<boolean> =>
  new Promise((done) => {
    const child = spawn(process.execPath, args, { stdio: ["ignore", "inherit", "inherit"], env: { ...process.env, ...env } });
    children.add(child);
    child.on("exit", (code) => {
      children.delete(child);
      done(code === 0);
    });
  });

/** Begins a tool that takes minutes of one core, beside what takes the other; what it printed is shown when it is waited for. */
export function beside(args: string[]): () => Promise<boolean> {
  const child = spawn(process.execPath, args, { stdio: ["ignore", "pipe", "pipe"] });
  children.add(child);
  const said: Buffer[] = [];
  for (const out of [child.stdout, child.stderr]) out.on("data", (part: Buffer) => said.push(part));
  const ended = new Promise<boolean>((done) =>
    child.on("close", (code) => {
      children.delete(child);
      done(code === 0);
    }),
  );
  return async () => {
    const ok = await ended;
    process.stdout.write(Buffer.concat(said));
    return ok;
  };
}
export const bin = (path: string): string => join("node_modules", path);
