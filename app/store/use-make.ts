import { useOutletContext } from "react-router";
import type { KeptLamp } from "@core/record/lamp";
import type { Pack } from "@core/pack/pack";
import { merged } from "@core/schema/merge";
import { object, record, type Rule } from "@core/schema/rule";
import { nowIso } from "./clock";
import { actionFor, intentFor, useSending } from "./intents";
import { changePack } from "./packs";
import { idIn, makePath } from "./paths";

/** All that the pages of a make need. */
export interface MakeData {
  pack: Pack;
  /** It ships with Klinko and stays as it is. */
  ships: boolean;
  /** Plates of the vehicles that use it. */
  usedBy: string[];
  /** How lamps talk that were learned on this device. */
  lamps: KeptLamp[];
}

export const useMake = () => useOutletContext<MakeData>();

/** What is known where something is done to a make. */
interface MakeDoing {
  id: string;
  now: string;
}

export const makeIntent = intentFor<MakeDoing>();
export const makeAction = actionFor(({ packId }: { packId: string }): MakeDoing => ({
  id: idIn(packId),
  now: nowIso(),
}));

/** A make as a page had it, or made of it: what comes of both is checked as a whole before it is stored. */
const some = record as Rule<unknown> as Rule<Pack>;

export const editIntents = {
  /** What was changed of `base` on the way to `mine` is changed in what is stored by now, and gets a revision of its own. */
  edit: makeIntent(object({ base: some, mine: some }), ({ base, mine }, { id, now }) =>
    changePack(id, (stored) => {
      const next = merged(base, mine, stored);
      return JSON.stringify(next) === JSON.stringify(stored) ? stored : { ...next, id, revision: now };
    }),
  ),
};

/** Changes the make that is open: the pages follow when it is stored. */
export function useEdit(pack: Pack) {
  const { send, problem, busy } = useSending<typeof editIntents>(makePath(pack.id));
  return { edit: (to: (pack: Pack) => Pack) => send({ intent: "edit", base: pack, mine: to(pack) }), problem, busy };
}
