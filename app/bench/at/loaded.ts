/** Types of what the bench page's loader returns. */
import type { Route } from "./+types/at";

export type AtBenchLoaded = Route.ComponentProps["loaderData"];
