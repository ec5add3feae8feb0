import { useOutletContext, useParams } from "react-router";
import type { KeptLamp } from "@core/record/lamp";
import type { Pack } from "@core/pack/pack";
import { nowIso } from "./clock";
import { actionFor, intentFor, useSending, type Intents } from "./intents";
import { changePack } from "./packs";
import { idIn, makePath, type MakePart } from "./paths";

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
export interface MakeDoing {
  id: string;
  now: string;
  /** Changes the make as it is stored by now; what is new gets a revision of its own. */
  change: (to: (pack: Pack) => Pack) => Promise<unknown>;
}

export const makeIntent = intentFor<MakeDoing>();

/** Carries out what a page of a make asks for. */
export const makeAction = actionFor(({ packId }: { packId: string }): MakeDoing => {
  const id = idIn(packId);
  const now = nowIso();
  const change: MakeDoing["change"] = (to) =>
    changePack(id, (pack) => {
      const next = to(pack);
      return JSON.stringify(next) === JSON.stringify(pack) ? pack : { ...next, revision: now };
    });
  return { id, now, change };
});

/** Sends what is to be done to the action of one of its pages. */
export function useMakeIntents<I extends Intents<MakeDoing>>(part: MakePart | null, done?: () => void) {
  const { packId } = useParams();
  return useSending<I>(makePath(idIn(packId!), part ?? undefined), done);
}
