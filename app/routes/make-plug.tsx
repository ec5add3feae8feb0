export { PlugPart as default } from "~/features/makes/PlugPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
