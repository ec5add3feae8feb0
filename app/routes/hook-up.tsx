import { hookUpIntents } from "~/features/hook-up/intents";
import { jobAction } from "~/store/use-job";

export const clientAction = jobAction(hookUpIntents);
export { HookUp as default } from "~/features/hook-up/HookUp";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
