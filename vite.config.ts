import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";
import { compression } from "vite-plugin-compression2";

/** What the browser is sent is compressed once, here; the server has only to choose (scripts/server/serve.ts). */
const small = () => compression({ include: /\.(js|css|svg)$/, algorithms: ["gzip", "brotliCompress"] });

/**
 * What the server renders with comes in one file: read from its packages, thousands of small ones are opened at every start. Those that read
 * files of their own stay where they are.
 */
const ssr = { noExternal: true as const, external: ["pg", "react", "react-dom", "react-router", "pdfkit", "fontkit"] };

/** What every page has of core goes in one script: each by itself costs more than it holds. */
const together = (id: string): string | undefined =>
  /\/core\/(numbers|outcome|when|measure\/(exact|write))\.ts$/.test(id) ? "core" : undefined;

export default defineConfig(({ command, isSsrBuild }) => ({
  ...(command === "build" && { ssr }),
  build: { rollupOptions: isSsrBuild ? { input: "app/server/pages.server.ts" } : { output: { manualChunks: together } } },
  plugins: [tailwindcss(), reactRouter(), !isSsrBuild && small()],
}));
