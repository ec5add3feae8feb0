import { talkIntents } from "~/features/makes/intents";
import { makeAction } from "~/store/use-make";

export const clientAction = makeAction(talkIntents);
export { TalkPart as default } from "~/features/makes/TalkPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
