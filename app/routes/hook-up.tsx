export { HookUp as default } from "~/features/hook-up/HookUp";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
