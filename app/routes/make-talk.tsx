export { TalkPart as default } from "~/features/makes/TalkPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
