import { clearIntents } from "~/features/clear/intents";
import { jobAction } from "~/store/use-job";

export const clientAction = jobAction(clearIntents);
export { ClearStep as default } from "~/features/clear/ClearStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
