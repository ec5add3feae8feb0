export { WayInStep as default } from "~/features/way-in/WayInStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
