import { checksIntents } from "~/features/checks/intents";
import { jobAction } from "~/store/use-job";

export const clientAction = jobAction(checksIntents);
export { ChecksStep as default } from "~/features/checks/ChecksStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
