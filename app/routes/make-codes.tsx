import { codesIntents } from "~/features/makes/intents";
import { makeAction } from "~/store/use-make";

export const clientAction = makeAction(codesIntents);
export { CodesPart as default } from "~/features/makes/CodesPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
