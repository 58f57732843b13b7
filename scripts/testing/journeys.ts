/** The journeys through the real interface, side by side in a house each, and what failed of them in words. */
import { readFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import { buildIfStale } from "../building/build.ts";
import { chromium } from "../system.ts";
import { throwAwayHouse } from "./throwAway.ts";
import { bin, run } from "./tools.ts";

/** Journeys that go side by side; a browser and its server take a core between them. */
const SIDE_BY_SIDE = Math.min(4, Math.max(2, availableParallelism()));

interface JourneyResult {
  error?: { message?: string };
  attachments: { name: string; path?: string; body?: string }[];
}
interface Suite {
  file: string;
  specs: { title: string; ok: boolean; tests: { results: JourneyResult[] }[] }[];
  suites?: Suite[];
}
interface JourneyReport {
  stats: { expected: number; unexpected: number; flaky: number };
  suites: Suite[];
}
/** What was on the page when it failed, without the addresses of its links, and what the page had asked of the server. */
const stoodThen = (result: JourneyResult | undefined): string[] => {
  const asked = result?.attachments.find((a) => a.name === "asked")?.body ?? "";
  const path = result?.attachments.find((a) => a.name === "error-context")?.path;
  const page = path ? readFileSync(path, "utf8") : "";
  const work = page.slice(Math.max(0, page.indexOf("- main")), page.indexOf("# Test source")).split("\n");
  const lines = work.filter((line) => line.trim() !== "" && !line.includes("/url:")).slice(0, MOST_OF_A_PAGE);
  return [...lines, ...Buffer.from(asked, "base64").toString("utf8").split("\n")];
};
const MOST_OF_A_PAGE = 45;
/** Journeys whose first try failed. @param ok whether the second didn't */
const journeysFailed = (suites: readonly Suite[], ok: boolean): string[] =>
  suites.flatMap((s) => [
    ...s.specs.flatMap((spec) => {
      const result = spec.tests[0]?.results[0];
      if (spec.ok !== ok || !result?.error) return [];
      const what = (result.error.message ?? "").split("\n")[0];
      return [[`${s.file}: ${spec.title}: ${what}`, ...stoodThen(result)].join("\n      ")];
    }),
    ...journeysFailed(s.suites ?? [], ok),
  ]);

export interface JourneysWent {
  ok: boolean;
  passed: number;
  failed: number;
  /** What failed twice, and what held at the second try only; each with what was on its page. */
  broken: string[];
  unsteady: string[];
}

/**
 * @param report the file the tool reports to
 * @param args of the tool: which journeys (all without), `-g "part of a title"`
 */
export async function interfaceTests(server: string, report: string, args: readonly string[] = []): Promise<JourneysWent> {
  buildIfStale();
  const houses = [];
  for (let n = 0; n < SIDE_BY_SIDE; n++) houses.push(await throwAwayHouse(server, n));
  const ok = await run([bin("@playwright/test/cli.js"), "test", "--config", "e2e/playwright.config.ts", ...args], {
    ZELBIN_URLS: houses.map((h) => h.url).join(" "),
    ZELBIN_DATABASES: houses.map((h) => h.database).join(" "),
    ZELBIN_SCALES: houses.map((h) => h.devices.pids.scale ?? "").join(" "),
    CHROMIUM: chromium(),
    PLAYWRIGHT_JSON_OUTPUT_NAME: report,
  });
  const { stats, suites } = JSON.parse(readFileSync(report, "utf8")) as JourneyReport;
  return {
    ...{ ok, passed: stats.expected + stats.flaky, failed: stats.unexpected },
    ...{ broken: journeysFailed(suites, false), unsteady: journeysFailed(suites, true) },
  };
}
