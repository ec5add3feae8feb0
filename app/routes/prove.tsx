export { ProveStep as default } from "~/features/prove/ProveStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
