import { differenceInDays, parseISO } from "date-fns";
import { LIMITS, type Vehicle } from "@core/record/types";
import { any, flag, holds, list, object, oneOf, text, time, whole, word, type Of } from "@core/schema/rule";
import { boxes, cards, KINDS, placed, ready, type Kind } from "./boxes";
import { clock, nowIso } from "./clock";
import { dropFilms } from "./films";
import { dropPhotos } from "./photos";
import { inTurn } from "./in-turn";
import { isThere } from "./opening";
import { readCard, removeVehicle } from "./records";
import { announce } from "./tabs";
import { changeValue, dropValue, readValue } from "./values";

/** The vehicle that was removed last, whole, so that it can be put back. */
const removedRule = object({
  at: time,
  vehicle: word(LIMITS.name),
  plate: text(LIMITS.name),
  jobs: whole(0),
  /** All of it has been removed. */
  done: flag,
  /** Its records as they were stored. */
  records: list(object({ kind: oneOf(...KINDS), key: word(2 * LIMITS.name + 1), raw: any }), {
    max: Number.MAX_SAFE_INTEGER,
  }),
});
export type Removed = Of<typeof removedRule>;

/** So long it can be put back, days. */
export const KEPT_DAYS = 30;

const KEY = "removed";
const known = (value: unknown): Removed | null => {
  if (!isThere(value)) return null;
  const held = holds(removedRule, value);
  return "value" in held ? held.value : null;
};

/** What goes on with it goes on in one tab at a time. */
const turnOf = <T>(run: () => Promise<T>, first = ready): Promise<T> => inTurn("removed", () => first().then(run));

/** What can be put back; null where there is nothing, or its time is over. */
export const readRemoved = (): Promise<Removed | null> =>
  turnOf(async () => {
    const removed = known(await readValue(KEY));
    if (!removed) return null;
    if (!removed.done) {
      // The page died in between: nothing was removed as far as anybody was told.
      await restore(removed);
      return null;
    }
    if (isThere(await boxes.vehicle.get(removed.vehicle))) {
      await dropValue(KEY);
      return null;
    }
    if (differenceInDays(clock.now(), parseISO(removed.at)) < KEPT_DAYS) return removed;
    await letGo(removed);
    return null;
  }, placed);

/** Removes a vehicle with all that belongs to it, and keeps it to be put back; the one before is gone for good then. */
export const takeAway = (vehicle: Vehicle): Promise<void> =>
  turnOf(async () => {
    const { jobs } = await readCard(vehicle.id);
    const keys: [Kind, string][] = [
      ["vehicle", vehicle.id],
      ...jobs.flatMap(({ id, readings }): [Kind, string][] => [
        ["job", id],
        ...readings.map((r): [Kind, string] => ["reading", `${id}/${r.id}`]),
      ]),
    ];
    const records: Removed["records"] = [];
    for (const [kind, key] of keys) {
      const raw = await boxes[kind].get(key);
      if (isThere(raw)) records.push({ kind, key, raw });
    }
    const before = known(await readValue(KEY));
    const removed = { at: nowIso(), vehicle: vehicle.id, plate: vehicle.plate, jobs: jobs.length, records };
    await changeValue(KEY, () => ({ ...removed, done: false }));
    await removeVehicle(vehicle);
    await changeValue(KEY, () => ({ ...removed, done: true }));
    if (before) await dropPictures(before.vehicle);
  });

/** Puts back what was removed last; a record that has come meanwhile stays as it is. */
export const putBack = (): Promise<void> =>
  turnOf(async () => {
    const removed = known(await readValue(KEY));
    if (removed) await restore(removed);
  });

/** Lets go for good of what was removed. */
export const emptyRemoved = (): Promise<void> =>
  turnOf(async () => {
    const removed = known(await readValue(KEY));
    if (removed) await letGo(removed);
  });

async function restore({ vehicle, records }: Removed): Promise<void> {
  for (const { kind, key, raw } of records) if (!isThere(await boxes[kind].get(key))) await boxes[kind].set(key, raw);
  // Its card is made anew from the records.
  await cards.remove(vehicle);
  await dropValue(KEY);
  announce(vehicle);
}

async function dropPictures(vehicle: string): Promise<void> {
  await dropFilms({ vehicle });
  await dropPhotos({ vehicle });
}

async function letGo({ vehicle }: Removed): Promise<void> {
  await dropPictures(vehicle);
  await dropValue(KEY);
}
