import { transformAsync } from "@babel/core";
import { reactRouter } from "@react-router/dev/vite";
import { defineConfig, runnerImport, type Plugin } from "vite";

/** Gives styled components the same ids on server and client; without it they differ silently and styles flash. */
function styledIds(): Plugin {
  return {
    name: "styled-ids",
    enforce: "pre",
    async transform(code, id) {
      const file = id.split("?")[0];
      if (!/\/app\/.*\.tsx?$/.test(file) || !code.includes("styled-components")) return null;
      const result = await transformAsync(code, {
        filename: file,
        babelrc: false,
        configFile: false,
        sourceMaps: true,
        parserOpts: { plugins: ["typescript", "jsx"] },
        plugins: [["babel-plugin-styled-components", { ssr: true, displayName: false, fileName: false }]],
      });
      return result?.code ? { code: result.code, map: result.map } : null;
    },
  };
}

/** The demo fleet's readings are decoded once, in the build: a garage that is looked at for the first time need not wait for that. */
function demoFleet(): Plugin {
  const id = "virtual:demo-fleet";
  return {
    name: "demo-fleet",
    resolveId: (source) => (source === id ? `\0${id}` : null),
    async load(resolved) {
      if (resolved !== `\0${id}`) return null;
      const { module } = await runnerImport<typeof import("./packs/demo-fleet")>("./packs/demo-fleet.ts", {
        resolve: { tsconfigPaths: true },
      });
      const builtAt = Date.now();
      const fleet = JSON.stringify({ builtAt, docs: module.buildDemo(builtAt) });
      return `export default JSON.parse(${JSON.stringify(fleet)});`;
    },
  };
}

/**
 * React Aria asks as it is loaded whether the browser's locale is one, by a question for which Chromium reads the names of all locales
 * it knows (50 ms on a slow machine, on each page). Another one throws at the same wrong names, and reads nothing.
 */
function cheapLocale(): Plugin {
  const asked = /Intl\.DateTimeFormat\.supportedLocalesOf\(\[\s*locale\s*\]\)/;
  return {
    name: "cheap-locale",
    transform(code, id) {
      if (!/react-aria\/.*useDefaultLocale\.(mjs|cjs|js)$/.test(id.split("?")[0])) return null;
      if (!asked.test(code))
        this.error("React Aria asks about the locale in another way: see cheapLocale in vite.config.ts");
      return { code: code.replace(asked, "Intl.getCanonicalLocales(locale)"), map: null };
    },
  };
}

export default defineConfig({
  plugins: [styledIds(), cheapLocale(), demoFleet(), reactRouter()],
  resolve: { tsconfigPaths: true },
  ssr: { noExternal: ["styled-components"] },
  worker: { format: "es" },
  optimizeDeps: {
    include: [
      "react-router/dom",
      "react-dom/client",
      "react/jsx-runtime",
      "react/jsx-dev-runtime",
      "styled-components",
      "styled-components > stylis",
      "react-aria-components",
      "lucide-react",
      "joi",
      "localforage",
      "comlink",
      "papaparse",
      "date-fns",
    ],
  },
});
