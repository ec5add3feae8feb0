import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

/** Files in which a package states its licence. */
const LICENCE = /^(licen[cs]e|copying|notice|ofl)([.-].*)?$/i;

/**
 * What others have written and Klinko ships with: each package that is no tool of the build, its licence, and its own words on it.
 * @param root folder of the project, with its packages installed
 */
export function notices(root) {
  const { packages } = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8"));
  const shipped = Object.entries(packages)
    .filter(([path, { dev, devOptional }]) => path.startsWith("node_modules/") && !dev && !devOptional)
    .filter(([path]) => existsSync(join(root, path)))
    .map(([path, { version }]) => {
      const about = JSON.parse(readFileSync(join(root, path, "package.json"), "utf8"));
      const files = readdirSync(join(root, path)).filter((name) => LICENCE.test(name));
      return {
        name: path.replace(/^.*node_modules\//, ""),
        version,
        licence: typeof about.license === "string" ? about.license : (about.license?.type ?? "not stated"),
        texts: files.map((name) => readFileSync(join(root, path, name), "utf8").trim()),
      };
    })
    .sort((a, b) => a.name.localeCompare(b.name) || a.version.localeCompare(b.version));
  const rule = "-".repeat(76);
  const head = `What others have written and Klinko ships with: ${shipped.length} packages, fonts among them.\n`;
  const list = shipped.map(({ name, version, licence, texts }) =>
    [rule, `${name} ${version}: ${licence}`, ...texts.map((text) => `\n${text}`)].join("\n"),
  );
  return `${head}\n${list.join("\n\n")}\n`;
}
