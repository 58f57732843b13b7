import { availableParallelism } from "node:os";
import { defineConfig } from "vitest/config";

/** Only a safety: a machine that does other work beside is no fault of the code's. */
const LONG = 300_000;

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: "unit",
          include: ["core/**/*.test.ts", "app/**/*.test.ts", "devices/**/*.test.ts", "scripts/**/*.test.ts"],
          exclude: ["app/test/**"],
          setupFiles: ["scripts/seed.ts"],
          testTimeout: LONG,
        },
      },
      {
        test: {
          name: "database",
          include: ["db/**/*.test.ts", "demo/**/*.test.ts", "app/test/*.test.ts"],
          // A file's database is its own, and half the time is the server's, which is another process: one for every core, but not for a crowd.
          maxWorkers: Math.min(4, availableParallelism()),
          globalSetup: ["db/test/template.ts"],
          setupFiles: ["scripts/seed.ts"],
          testTimeout: LONG,
          hookTimeout: LONG,
        },
      },
    ],
  },
});
