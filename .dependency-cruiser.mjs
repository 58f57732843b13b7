/**
 * Which folder may import from which: `npm run rooms`. A room is a folder of the first level in app, core, db or demo. Types and `import()`
 * count as imports.
 */

/** Files of one place may not import from others. */
const mayNot = (name, from, to, comment) => ({
  ...{ name, comment, severity: "error" },
  from: { path: from, pathNot: "\\.test\\.tsx?$" },
  to: { path: to },
});

const ROOM = "^(app|core|db|demo)/[^/]+$";

export default {
  forbidden: [
    {
      name: "no-circle-of-files",
      severity: "error",
      comment: "Two files need each other: a third has what both need.",
      from: {},
      to: { circular: true },
    },
    {
      ...{ name: "no-circle-of-rooms", severity: "error", scope: "folder" },
      comment: "Two rooms need each other: what both need belongs to a room below them.",
      from: { path: ROOM },
      to: { path: ROOM, circular: true },
    },
    {
      ...{ name: "found", severity: "error", comment: "Nothing stands at that address." },
      from: {},
      to: { couldNotResolve: true, path: "^[#.]" },
    },
    mayNot(
      "core-computes",
      "^core/",
      "^(app|db|demo|devices|scripts|e2e)/",
      "core/ computes; it knows no database, no interface and no script.",
    ),
    mayNot("db-knows-core", "^db/", "^(app|demo|devices|scripts|e2e)/", "db/ knows core/ only."),
    mayNot("devices-know-core", "^devices/", "^(app|db|demo|scripts|e2e)/", "devices/ are programs of their own; they know core/ only."),
    mayNot("demo-works-through-db", "^demo/", "^(app|scripts|e2e)/", "demo/ does what a maker does, through db/."),
    mayNot("app-runs-alone", "^app/", "^(demo|scripts|e2e)/", "app/ runs without the demo and the scripts."),
    mayNot("tests-do-not-ship", "^(app|core|db|demo|devices)/", "^test/", "What only tests need is imported by tests only."),
    mayNot("ui-knows-no-data", "^app/ui/", "^(db/|app/(?!ui/))", "ui/ draws what it is given: it knows no station and reads nothing."),
    mayNot("forms-know-no-station", "^app/forms/", "^app/(?!(forms|ui|server)/)", "forms/ are for every station."),
    mayNot("names-know-no-station", "^app/names/", "^app/(?!(names|forms|ui|server)/)", "names/ are for every station."),
    mayNot(
      "root-stands-above",
      "^app/[^/]+/",
      "^app/[^/]+\\.tsx?$",
      "The root, the entries and the table of routes know the rooms; no room knows them.",
    ),
    mayNot(
      "server-knows-no-screen",
      "^app/server/",
      "^app/(?!server/)",
      "server/ is the request at hand: what every loader and action may ask.",
    ),
    mayNot(
      "shell-stands-above",
      "^app/(?!shell/|root\\.tsx)",
      "^app/shell/",
      "The shell knows the stations; none of them knows the shell.",
    ),
  ],
  options: {
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    doNotFollow: { path: "node_modules" },
    // Types that the framework writes for each route; and tests, which may know everything.
    exclude: { path: "node_modules|/\\+types/|\\.test\\.tsx?$" },
    enhancedResolveOptions: { conditionNames: ["import"], extensions: [".ts", ".tsx", ".mjs", ".json", ".css"] },
  },
};
