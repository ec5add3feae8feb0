export { HandOver as default } from "~/features/makes/HandOver";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
