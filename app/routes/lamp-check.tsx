export { LampCheckStep as default } from "~/features/lamp-check/LampCheckStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
