import { readIntents } from "~/features/read/intents";
import { jobAction } from "~/store/use-job";

export const clientAction = jobAction(readIntents);
export { ReadStep as default } from "~/features/read/ReadStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
