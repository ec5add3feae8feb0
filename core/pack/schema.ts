import { climb, type Ladder } from "../schema/ladder";
import { holds } from "../schema/rule";
import { PACK_VERSION, packRule, type Pack } from "./pack";
import { brokenReferences, unnamedCircuits, type PackFault } from "./references";

/** Largest file that is opened as a pack, bytes. */
export const PACK_MAX_BYTES = 2_000_000;

export type { PackFault };

/** How packs of each version that was released become those of the next. */
const PACK_LADDER: Ladder = {};

export type PackChecked =
  /** `unknown`: fields that this version has no use for. They stay, and are told of: one of them may be a slip of the pen. */
  { pack: Pack; unknown: PackFault[] } | { faults: PackFault[] };

/** Checks a pack and all that it points to. Every fault with its path, or the pack. */
export function checkPack(value: unknown): PackChecked {
  const { version } = (typeof value === "object" && value !== null ? value : {}) as { version?: unknown };
  if (typeof version === "number" && version > PACK_VERSION)
    return {
      faults: [
        {
          path: "version",
          message: `is ${version}, of a newer Klinko; this one knows ${PACK_VERSION}. Update Klinko, or take an older pack`,
        },
      ],
    };
  const old = typeof version === "number" && Number.isInteger(version) && version >= 1 && version < PACK_VERSION;
  const now = old ? climb(PACK_LADDER, value as Record<string, unknown>, version, PACK_VERSION) : value;
  const told = (list: { path: (string | number)[]; message: string }[]) =>
    list.map((f) => ({ path: pathText(f.path), message: f.message.replace(/^"[^"]*" /, "") }));
  const held = holds(packRule, now, { all: true });
  if ("faults" in held) return { faults: told(held.faults) };
  const strict = holds(packRule, now, { unknown: "fault", all: true });
  const beside = "faults" in strict ? strict.faults.filter((f) => f.unknown) : [];
  const reserved = beside.filter((f) => RESERVED.includes(String(f.path.at(-1))));
  if (reserved.length) return { faults: told(reserved) };
  const unknown = told(beside);
  const faults = brokenReferences(held.value);
  return faults.length
    ? { faults }
    : {
        pack: held.value,
        unknown: [
          ...unknown.map((f) => ({ ...f, message: "is not known to this Klinko: it stays, and does nothing" })),
          ...unnamedCircuits(held.value),
        ],
      };
}

/** The same rules as a JSON Schema, for editors and other programs. What points from one place to another it cannot hold. */
export function packJsonSchema(): object {
  const schema = packRule.joi()["~standard"].jsonSchema.input({ target: "draft-2020-12" });
  return { $schema: "https://json-schema.org/draft/2020-12/schema", title: "Klinko pack, version 1", ...schema };
}

/** What is said of a file that is too large to be a pack. */
export const tooLarge = (): PackChecked => ({
  faults: [{ path: "(file)", message: `is larger than ${PACK_MAX_BYTES / 1e6} MB. A pack is a few hundred kB.` }],
});

/** Reads a pack from text. */
export function readPack(json: string): PackChecked {
  if (json.length > PACK_MAX_BYTES) return tooLarge();
  let value: unknown;
  const reserved = new Set<string>();
  try {
    value = JSON.parse(json, (key, v: unknown) => {
      if (RESERVED.includes(key)) reserved.add(key);
      return v;
    });
  } catch (e) {
    return { faults: [{ path: "(file)", message: `is not JSON: ${(e as Error).message}` }] };
  }
  if (reserved.size)
    return {
      faults: [...reserved].map((key) => ({
        path: "(file)",
        message: `uses the name "${key}" for a field, which no pack has: take it out`,
      })),
    };
  return checkPack(value);
}

/** Names that reach into the objects of the language itself. */
const RESERVED = ["__proto__", "constructor", "prototype"];

function pathText(path: (string | number)[]): string {
  return (
    path
      .map((p) => (typeof p === "number" ? `[${p}]` : `.${p}`))
      .join("")
      .replace(/^\./, "") || "(file)"
  );
}
