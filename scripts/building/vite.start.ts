/** Puts what `npm start` runs into one file, so that it needn't be compiled again each time. */
import { defineConfig } from "vite";

export default defineConfig({
  logLevel: "warn",
  publicDir: false,
  build: {
    ssr: true,
    outDir: "build/start",
    target: "node20",
    rollupOptions: { input: { start: "scripts/start.ts", scale: "devices/scale.ts", thermometer: "devices/thermometer.ts" } },
  },
});
