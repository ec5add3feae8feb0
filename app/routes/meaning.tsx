export { MeaningStep as default } from "~/features/meaning/MeaningStep";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
