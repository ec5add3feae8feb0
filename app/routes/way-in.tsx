import { wayInIntents } from "~/features/way-in/intents";
import { jobAction } from "~/store/use-job";

export const clientAction = jobAction(wayInIntents);
export { WayInStep as default } from "~/features/way-in/WayInStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
