/** Route that reports how far a long act has come, by its sheet's token; a post stops it. */
import type { Route } from "./+types/progress";
import { goingOn, stop } from "./progress.server.ts";

export const loader = ({ params }: Route.LoaderArgs) => Response.json(goingOn(params.token));
export const action = ({ params }: Route.ActionArgs) => Response.json({ stopped: stop(params.token) });
