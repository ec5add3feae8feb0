import { meaningIntents } from "~/features/meaning/intents";
import { jobAction } from "~/store/use-job";

export const clientAction = jobAction(meaningIntents);
export { MeaningStep as default } from "~/features/meaning/MeaningStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
