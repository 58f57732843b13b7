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
          include: ["{core,app,devices,scripts,test/core}/**/*.test.ts"],
          setupFiles: ["scripts/seed.ts"],
          testTimeout: LONG,
        },
      },
      {
        test: {
          name: "database",
          include: ["{db,demo,test/db,test/app}/**/*.test.ts"],
          // A file's database is its own, and half the time is the server's, which is another process: one for every core, but not for a crowd.
          maxWorkers: Math.min(4, availableParallelism()),
          globalSetup: ["test/db/template.ts"],
          setupFiles: ["scripts/seed.ts"],
          testTimeout: LONG,
          hookTimeout: LONG,
        },
      },
    ],
  },
});
