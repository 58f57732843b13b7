/** What the page at the bench is read with. */
import type { Route } from "./+types/at";

export type AtBenchLoaded = Route.ComponentProps["loaderData"];
