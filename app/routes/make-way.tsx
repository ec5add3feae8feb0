import { wayIntents } from "~/features/makes/intents";
import { makeAction } from "~/store/use-make";

export const clientAction = makeAction(wayIntents);
export { WayPart as default } from "~/features/makes/WayPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
