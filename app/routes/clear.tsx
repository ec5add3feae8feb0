export { ClearStep as default } from "~/features/clear/ClearStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
