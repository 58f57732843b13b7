/** The tests that mutation testing runs: those of the core alone, in one world, since no mutant leaves anything behind. */
import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["{core,test/core}/**/*.test.ts"],
    setupFiles: ["scripts/seed.ts", "scripts/mutate/noShrinking.ts"],
    isolate: false,
  },
});
