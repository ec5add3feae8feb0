import { ensureCli, ensurePackages, root } from "./ensure.mjs";

// The command line tool: built when stale, then run with the words given.
ensurePackages();
await ensureCli();
await import(`${root}/dist/cli/klinko.js`);
