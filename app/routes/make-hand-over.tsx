import { handOverIntents } from "~/features/makes/intents";
import { makeAction } from "~/store/use-make";

export const clientAction = makeAction(handOverIntents);
export { HandOver as default } from "~/features/makes/HandOver";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
