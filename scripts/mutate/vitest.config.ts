/** The tests that mutation testing asks of an area, named by ZELBIN_MUTATE. */
import { defineConfig } from "vitest/config";
import { AREA, type Area } from "./areas.ts";

const area = (process.env.ZELBIN_MUTATE ?? "core") as Area;
const { tests, without } = AREA[area];
const LONG = 300_000;

export default defineConfig({
  test: {
    include: [...tests],
    exclude: ["node_modules/**", ...without, ...(process.env.ZELBIN_NO_TABLES ? ["test/core/said/**"] : [])],
    setupFiles: ["scripts/seed.ts", "scripts/mutate/noShrinking.ts"],
    testTimeout: LONG,
    hookTimeout: LONG,
    // No mutant of the computation leaves anything behind: one world for all its tests.
    ...(area === "core" ? { isolate: false } : { globalSetup: ["test/db/template.ts"] }),
  },
});
