/** Mutation testing of the computation: `npm run mutate`, or `npm run mutate -- --mutate core/stock/lots.ts` for one file. */
export default {
  testRunner: "vitest",
  vitest: { configFile: "scripts/mutate/vitest.config.ts" },
  mutate: ["core/**/*.ts", "!core/**/*.test.ts", "!core/material/library/*.ts"],
  incremental: true,
  incrementalFile: ".data/mutation-incremental.json",
  ignorePatterns: ["app", "build", "demo", "docs", "e2e", "public", ".data", "test-results"],
  concurrency: 2,
  // What is worked out once, as a file is loaded, would take the whole run anew for each.
  ignoreStatic: true,
  reporters: ["clear-text", "progress-append-only", "json"],
  jsonReporter: { fileName: ".data/mutation.json" },
  tempDirName: ".data/mutating",
  clearTextReporter: { allowColor: false, reportTests: false, logTests: false, allowEmojis: false },
};
