import { clearsIntents } from "~/features/makes/intents";
import { makeAction } from "~/store/use-make";

export const clientAction = makeAction(clearsIntents);
export { ClearsPart as default } from "~/features/makes/ClearsPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
