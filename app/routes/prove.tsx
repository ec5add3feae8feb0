import { proveIntents } from "~/features/prove/intents";
import { jobAction } from "~/store/use-job";

export const clientAction = jobAction(proveIntents);
export { ProveStep as default } from "~/features/prove/ProveStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
