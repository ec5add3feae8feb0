import { plugIntents } from "~/features/makes/intents";
import { makeAction } from "~/store/use-make";

export const clientAction = makeAction(plugIntents);
export { PlugPart as default } from "~/features/makes/PlugPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
