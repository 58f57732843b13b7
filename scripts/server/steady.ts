/**
 * Keeps answering while the database is away: a page waits a little and asks again, a sheet says so in words and what was typed stays on it. One
 * place around every route, so that none has to think of it. The framework's middleware can't be that place: it never sees what a loader
 * throws, and may go on to the loaders only once.
 */
import { data, type ActionFunction, type LoaderFunction, type ServerBuild } from "react-router";
import type { FieldProblem } from "#core/refused";
import { databaseOutage } from "#db/outage";

/** How often and how long a page waits for the database before it says that it is away. */
const TRIES = 6;
const BETWEEN_MS = 400;
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

const steadyLoader =
  (load: LoaderFunction): LoaderFunction =>
  async (args, handlerCtx) => {
    for (let tried = 1; ; tried++) {
      try {
        return await load(args, handlerCtx);
      } catch (e) {
        const out = databaseOutage(e);
        if (!out) throw e;
        if (tried >= TRIES || args.request.signal.aborted)
          throw new Response(out.say, { status: out.status, headers: { "Retry-After": "2" } });
        await pause(BETWEEN_MS);
      }
    }
  };

const steadyAction =
  (act: ActionFunction): ActionFunction =>
  async (args, handlerCtx) => {
    try {
      return await act(args, handlerCtx);
    } catch (e) {
      const out = databaseOutage(e);
      if (!out) throw e;
      const problems: FieldProblem[] = [{ field: "", say: out.say }];
      return data({ problems }, { status: out.status });
    }
  };

/** The build with every loader and action made steady. */
export const steady = (build: ServerBuild): ServerBuild => ({
  ...build,
  routes: Object.fromEntries(
    Object.entries(build.routes).map(([id, route]) => {
      if (!route) return [id, route];
      const { loader, action } = route.module;
      return [
        id,
        {
          ...route,
          module: { ...route.module, ...(loader && { loader: steadyLoader(loader) }), ...(action && { action: steadyAction(action) }) },
        },
      ];
    }),
  ),
});
