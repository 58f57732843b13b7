/** The licences of the fonts and packages that ship with the application, as one text beside what the browser is sent. */
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { groupBy } from "#core/collect";

interface Lock {
  packages: Record<string, { version?: string; dev?: boolean; license?: string }>;
}
interface Package {
  name: string;
  /** Its licence's name. */
  license: string;
  /** Its own text; empty where it brings none. */
  text: string;
}

/** What isn't needed for building or testing alone, by the lock file, with each package's own licence. */
export function shipped(): Package[] {
  const { packages } = JSON.parse(readFileSync("package-lock.json", "utf8")) as Lock;
  return Object.entries(packages).flatMap(([path, { version = "", dev, license = "unknown" }]) => {
    // What is for another machine's processor isn't installed.
    if (path === "" || dev || !existsSync(path)) return [];
    const file = readdirSync(path).find((f) => /^(licen[cs]e|copying)/i.test(f));
    const name = `${path.slice(path.lastIndexOf("node_modules/") + "node_modules/".length)} ${version}`;
    return [{ name, license, text: file ? readFileSync(join(path, file), "utf8").trim() : "" }];
  });
}

/** Each text once, under the packages it is for. */
export function licencesText(packages: readonly Package[]): string {
  const rule = `\n\n${"-".repeat(80)}\n\n`;
  const parts = [...groupBy(packages, (p) => p.text || p.license)].map(
    ([text, of]) => `${of.map((p) => `${p.name} (${p.license})`).join("\n")}\n\n${text}`,
  );
  return `Zelbin is made with the following fonts and packages.${rule}${parts.join(rule)}\n`;
}
