/**
 * A backup that is looked at: every page of it is shown, and whatever would change something says in words that nothing can be. One place around
 * every action, so that none has to think of it; PostgreSQL refuses it as well.
 */
import { data, type ServerBuild } from "react-router";
import { ONLY_LOOKED_AT } from "#core/workshop";
import type { FieldProblem } from "#core/refused";

const refused = () => {
  const problems: FieldProblem[] = [{ field: "", say: ONLY_LOOKED_AT }];
  return data({ problems }, { status: 409 });
};

/** The build with every action refused. */
export const looking = (build: ServerBuild): ServerBuild => ({
  ...build,
  routes: Object.fromEntries(
    Object.entries(build.routes).map(([id, route]) => [
      id,
      route?.module.action ? { ...route, module: { ...route.module, action: refused } } : route,
    ]),
  ),
});
