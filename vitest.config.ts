import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: "unit",
          include: ["core/**/*.test.ts", "app/**/*.test.ts", "devices/**/*.test.ts", "scripts/**/*.test.ts"],
          exclude: ["app/test/**"],
          setupFiles: ["scripts/seed.ts"],
          // A machine that does other work beside is no fault of the code's.
          testTimeout: 60_000,
        },
      },
      {
        test: {
          name: "database",
          include: ["db/**/*.test.ts", "demo/**/*.test.ts", "app/test/*.test.ts"],
          fileParallelism: false,
          setupFiles: ["scripts/seed.ts"],
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
