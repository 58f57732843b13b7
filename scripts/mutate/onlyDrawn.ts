/** A plugin of Stryker's: of the faults in a place that was drawn, those that weren't drawn themselves are left out. */
import type { Ignorer, NodePath } from "@stryker-mutator/api/ignore";
import { declareValuePlugin, PluginKind } from "@stryker-mutator/api/plugin";

type Place = readonly [fromLine: number, fromColumn: number, toLine: number, toColumn: number];
interface Babel {
  node: { loc?: { start: { line: number; column: number }; end: { line: number; column: number } } | null };
}

const NAME = "only-drawn";
const VARIABLE = "ZELBIN_DRAWN";

/** Tells the plugin, which Stryker loads by itself, what was drawn. @returns what Stryker is run with */
export function onlyDrawn(
  drawn: readonly { location: { start: { line: number; column: number }; end: { line: number; column: number } } }[],
) {
  const places = drawn.map(({ location: { start, end } }): Place => [start.line + 1, start.column, end.line + 1, end.column]);
  process.env[VARIABLE] = JSON.stringify(places);
  return { plugins: ["@stryker-mutator/*", import.meta.filename], ignorers: [NAME] };
}

const places = JSON.parse(process.env[VARIABLE] ?? "[]") as Place[];
const holds = ([a, b, c, d]: Place, [e, f, g, h]: Place): boolean => (a < e || (a === e && b <= f)) && (c > g || (c === g && d >= h));

/** What has no drawn fault in it is left out; files aren't told apart, which lets a few more be tried and none too few. */
const ignorer: Ignorer = {
  shouldIgnore(path: NodePath) {
    const loc = (path as Babel).node.loc;
    if (!loc) return undefined;
    const at: Place = [loc.start.line, loc.start.column, loc.end.line, loc.end.column];
    return places.some((p) => holds(at, p)) ? undefined : "not drawn";
  },
};

export const strykerPlugins = [declareValuePlugin(PluginKind.Ignore, NAME, ignorer)];
