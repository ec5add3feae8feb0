export { WayPart as default } from "~/features/makes/WayPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
