export { ReadStep as default } from "~/features/read/ReadStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
