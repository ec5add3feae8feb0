import { spawn } from "node:child_process";
import { ensureBuild, ensurePackages, freePort, root, serverArgs } from "./ensure.mjs";

// Installs what is missing, builds what is stale, and serves Klinko with the demo fleet.
ensurePackages();
await ensureBuild();
const port = await freePort(Number(process.env.PORT) || 4100);
const server = spawn(process.execPath, serverArgs, {
  cwd: root,
  stdio: ["ignore", "pipe", "inherit"],
  env: { ...process.env, NODE_ENV: "production", KLINKO_DEMO: "1", PORT: String(port), HOST: "127.0.0.1" },
});
let told = false;
server.stdout.on("data", (text) => {
  if (told || !String(text).includes("http")) return;
  told = true;
  console.log(`\n  Klinko with the demo fleet: http://127.0.0.1:${port}\n  Stop it with Ctrl+C.\n`);
});
server.on("exit", (code) => process.exit(code ?? 0));
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
