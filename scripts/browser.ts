/** Debian's Chromium, the way the tests and the pictures start it: headless, and without any call to the outside. */
import { isRoot } from "./system.ts";

export const BROWSER_ARGS = [
  ...(isRoot() ? ["--no-sandbox"] : []),
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--force-color-profile=srgb",
];
