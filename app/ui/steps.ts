import type { StepId } from "@core/record/types";

export const STEP_NAMES: Record<StepId, string> = {
  story: "Story",
  "way-in": "Way in",
  "lamp-check": "Lamp check",
  "hook-up": "Hook-up",
  read: "Read",
  meaning: "Meaning",
  checks: "Checks",
  clear: "Clear",
  prove: "Prove",
};
