/** Puts what `npm start` runs into one file, so that it needn't be compiled anew each time. */
import { defineConfig } from "vite";

export default defineConfig({
  logLevel: "warn",
  publicDir: false,
  build: { ssr: "scripts/start.ts", outDir: "build/start", target: "node20" },
});
