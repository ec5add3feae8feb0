/** Which way somebody prefers where practitioners differ. */
export const SCHOOLS = ["usual", "look-first", "clear-first"] as const;
export type School = (typeof SCHOOLS)[number];

export interface AdviceFacts {
  /** Faults that are stored, without expected codes and status; and whether the list was seen whole. */
  faults: number;
  whole: boolean;
  /** Something was checked, or mended, since they were read. */
  checked: boolean;
  mended: boolean;
  /** Whole days to the next inspection; null where nobody knows or there is none. */
  inspectionIn: number | null;
  /** All ways, or some, that wipe it make the readiness monitors start from nothing. */
  readiness: "all" | "some" | "none";
  /** Days until the monitors are complete again at the latest, as it is driven; null where nobody told. */
  readyIn: number | null;
  /** Whoever buys it wants to see what is stored. */
  forSale: boolean;
  school: School;
}

/** `look`: there is more to learn before it is wiped; `wait`: it would do harm now. */
export interface Advice {
  is: "clear" | "look" | "wait" | "nothing";
  headline: string;
  reason: string;
}

/** Where nobody told how often it is driven: monitors of everyday driving are mostly complete within so many days. */
const READY_DAYS = 14;

/**
 * Should it be cleared now? Record, then clear where there are several codes, since old events hide the one that is live and what
 * returns first is the lead; look first where one code has a place to look. A school of one's own goes before that.
 */
export function clearAdvice(f: AdviceFacts): Advice {
  const soon = f.inspectionIn !== null && f.inspectionIn >= 0 && f.inspectionIn <= (f.readyIn ?? READY_DAYS);
  if (soon && f.readiness === "all")
    return {
      is: "wait",
      headline: "Not now: the inspection is too near.",
      reason: `Monitors start from nothing after a clear and take ${f.readyIn === null ? "days of driving" : `up to ${f.readyIn} days as you drive it`}; the inspection is ${f.inspectionIn === 0 ? "today" : f.inspectionIn === 1 ? "tomorrow" : `in ${f.inspectionIn} days`}. Clear after it, or move the date.`,
    };
  if (f.forSale && f.faults > 0 && !f.mended)
    return {
      is: "wait",
      headline: "Not now: it is for sale.",
      reason: "A freshly wiped memory hides what is wrong from whoever buys it. Mend it first, or show them the list.",
    };
  const keep = soon && f.readiness === "some" ? " Take the way that keeps the monitors: the inspection is near." : "";
  if (!f.faults)
    return f.whole
      ? { is: "nothing", headline: "There is nothing to wipe.", reason: "No fault is stored here, as far as was read." }
      : { is: "look", headline: "Read it whole first.", reason: "What was not read is wiped unseen." };
  if (f.mended)
    return {
      is: "clear",
      headline: "Mended: clear it, and see whether it stays away.",
      reason: `What comes back first is not mended yet.${keep}`,
    };
  if (!f.whole)
    return {
      is: "look",
      headline: "Watch the list come round first.",
      reason: "It was not seen whole, and what was not read is wiped too.",
    };
  const one = f.faults === 1;
  if (f.school === "look-first" ? !f.checked : f.school === "usual" && one && !f.checked)
    return {
      is: "look",
      headline: one ? "One code: look first." : "Look first, as you prefer it.",
      reason: one
        ? "It is the best lead there is, and it has a place to look. Wiped, you wait until it comes back."
        : "What is stored is the lead. Wiped, you wait until it comes back.",
    };
  return {
    is: "clear",
    headline: one
      ? "Clear it, and see whether it comes back."
      : `${f.faults} codes: clear them, and see what returns first.`,
    reason: `${one ? "It is written down." : "They are written down. Old events hide the one that is there now, and what returns first is the lead."}${keep}`,
  };
}
