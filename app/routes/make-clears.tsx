export { ClearsPart as default } from "~/features/makes/ClearsPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
