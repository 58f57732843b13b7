/**
 * A plugin of Stryker's: of the faults in a place that was drawn, those that weren't drawn themselves are left out. What was drawn is in
 * ZELBIN_DRAWN, as [line, column, line, column], lines from 1. Stryker loads it in each of its processes, which read no TypeScript.
 */
import { declareValuePlugin, PluginKind } from "@stryker-mutator/api/plugin";

const holds = ([a, b, c, d], [e, f, g, h]) => (a < e || (a === e && b <= f)) && (c > g || (c === g && d >= h));

/** What has no drawn fault in it is left out; files aren't told apart, which lets a few more be tried and none too few. */
const ignorer = {
  shouldIgnore({ node: { loc } }) {
    if (!loc) return undefined;
    const at = [loc.start.line, loc.start.column, loc.end.line, loc.end.column];
    return JSON.parse(process.env.ZELBIN_DRAWN).some((place) => holds(at, place)) ? undefined : "not drawn";
  },
};

export const strykerPlugins = [declareValuePlugin(PluginKind.Ignore, "only-drawn", ignorer)];
