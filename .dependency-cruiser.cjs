/**
 * Folders in order: each uses those before it. What stands beside them is the way in, and uses them all; `last` uses that too.
 * A test may look at anything.
 */
const oneWay = (at, folders, last) =>
  folders.map((folder, i) => ({
    name: `${at}/${folder}-uses-what-is-before`,
    severity: "error",
    from: { path: `^${at}/${folder}/`, pathNot: "\\.test\\.ts$" },
    to: {
      path: `^${at}/(${[...folders.slice(i + 1), last].join("|")})/|^${at}/[^/]+$`,
      // What a reading is in the end is known to all: the contract, types alone.
      pathNot: `^${at}/answer\\.ts$`,
    },
  }));

/** Imports go one way: app and cli use core and packs; core uses nothing of theirs; features do not reach into one another. */
module.exports = {
  forbidden: [
    { name: "core-alone", severity: "error", from: { path: "^core/" }, to: { path: "^(app|cli|packs|e2e|scripts)/" } },
    {
      name: "core-no-platform",
      comment: "The core runs in a page, a worker and a shell alike.",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$" },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "core-no-interface",
      severity: "error",
      from: { path: "^core/" },
      to: { path: "node_modules/(react|react-dom|react-router|styled-components|react-aria|localforage|comlink)" },
    },
    ...oneWay("core/flash", ["trellis", "dialect", "seen", "walk", "explain", "search", "judge"], "learn"),
    { name: "packs-are-data", severity: "error", from: { path: "^packs/" }, to: { path: "^(app|cli)/" } },
    { name: "app-cli-apart", severity: "error", from: { path: "^app/" }, to: { path: "^cli/" } },
    { name: "cli-app-apart", severity: "error", from: { path: "^cli/" }, to: { path: "^app/" } },
    {
      name: "features-apart",
      comment: "What two features share belongs in app/ui, app/store or core.",
      severity: "error",
      from: { path: "^app/features/([^/]+)/" },
      to: { path: "^app/features/", pathNot: "^app/features/$1/" },
    },
    {
      name: "ui-knows-no-feature",
      severity: "error",
      from: { path: "^app/(ui|store|workers)/" },
      to: { path: "^app/(features|routes)/" },
    },
    { name: "no-cycles", severity: "error", from: {}, to: { circular: true } },
    { name: "no-missing", severity: "error", from: {}, to: { couldNotResolve: true, pathNot: "^virtual:" } },
  ],
  options: {
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    doNotFollow: { path: "node_modules" },
    exclude: { path: "\\.react-router|\\+types" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
    },
  },
};
