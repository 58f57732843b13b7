/** Answers a recipe's sheet that was given names it has not seen yet. */
import { stuffOf } from "./stuff.server.ts";
import type { Route } from "./+types/stuff";
import { MOST_NAMES } from "./useStuff.ts";

export const loader = ({ request }: Route.LoaderArgs) => stuffOf([], new URL(request.url).searchParams.getAll("name").slice(0, MOST_NAMES));
