import { lampCheckIntents } from "~/features/lamp-check/intents";
import { jobAction } from "~/store/use-job";

export const clientAction = jobAction(lampCheckIntents);
export { LampCheckStep as default } from "~/features/lamp-check/LampCheckStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
