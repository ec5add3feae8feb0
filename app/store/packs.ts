import type { Pack } from "@core/pack/pack";
import { checkPack, type PackFault } from "@core/pack/schema";
import { alike } from "@core/search/alike";
import { PACKS } from "@packs/index";
import { ready } from "./boxes";
import { inTurn } from "./in-turn";
import { loadOwnPacks, ownBox, rawPacks } from "./own-packs";
import { announcePacks } from "./tabs";

/** A make that is stored and cannot be used: of a newer Klinko, or damaged. It stays as it is. */
export interface LockedPack {
  id: string;
  make: string;
  faults: PackFault[];
}

interface Known {
  all: readonly Pack[];
  own: readonly Pack[];
  locked: readonly LockedPack[];
}

const checked = new WeakMap<ReadonlyMap<string, unknown>, Known>();

/** Those that ship and those of this device, checked once after each reading of the store. */
function known(): Known {
  const raw = rawPacks();
  const before = checked.get(raw);
  if (before) return before;
  const own: Pack[] = [];
  const locked: LockedPack[] = [];
  for (const [id, value] of raw) {
    const held = checkPack(value);
    if ("pack" in held && held.pack.id === id) own.push(held.pack);
    else {
      const { make } = (value ?? {}) as { make?: unknown };
      const faults =
        "faults" in held ? held.faults : [{ path: "id", message: `is not "${id}", under which it is filed` }];
      locked.push({ id, make: typeof make === "string" ? make : id, faults });
    }
  }
  own.sort((a, b) => a.make.localeCompare(b.make));
  const now = { all: [...PACKS, ...own], own, locked };
  checked.set(raw, now);
  return now;
}

/** Waits until the makes of this device are read; before that only those that ship are known. */
export const packsReady = (): Promise<void> => ready();

export const allPacks = (): readonly Pack[] => known().all;
export const ownPacks = (): readonly Pack[] => known().own;
export const lockedPacks = (): readonly LockedPack[] => known().locked;
export const packById = (id: string): Pack | undefined => known().all.find((p) => p.id === id);
export const ships = (id: string): boolean => PACKS.some((p) => p.id === id);

const turn = <T>(run: () => Promise<T>): Promise<T> =>
  inTurn("packs", async () => {
    await ready();
    const done = await run();
    await loadOwnPacks();
    announcePacks();
    return done;
  });

/** @throws RangeError in words where it does not hold */
function sound(pack: Pack): Pack {
  const held = checkPack(pack);
  if ("faults" in held) throw new RangeError(`${held.faults[0].path} ${held.faults[0].message}`);
  if (ships(pack.id)) throw new RangeError(`${pack.make} ships with Klinko and stays as it is: take a copy`);
  return held.pack;
}

/** Stores a make under its id, whatever was there before. */
export const writePack = (pack: Pack): Promise<void> => turn(() => ownBox.set(pack.id, sound(pack)));

/** Changes a make as it is stored by now, also where another tab has changed it meanwhile. */
export const changePack = (id: string, change: (pack: Pack) => Pack): Promise<Pack> =>
  turn(async () => {
    const held = checkPack(await ownBox.get(id));
    if ("faults" in held) throw new RangeError("this make is not on this device any more, or is damaged");
    const changed = sound(change(held.pack));
    if (JSON.stringify(changed) !== JSON.stringify(held.pack)) await ownBox.set(id, changed);
    return changed;
  });

export const removePack = (id: string): Promise<void> => turn(() => ownBox.remove(id));

/** An id like this one that no make has. */
export function freeId(wanted: string): string {
  const base = wanted.slice(0, 36).replace(/-\d+$/, "") || "make";
  const taken = new Set([...allPacks().map((p) => p.id), ...rawPacks().keys()]);
  if (!taken.has(base)) return base;
  let n = 2;
  while (taken.has(`${base}-${n}`)) n++;
  return `${base}-${n}`;
}

/** A make's name as an id. */
export const idFor = (make: string): string =>
  freeId(
    alike(make)
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 36) || "make",
  );
