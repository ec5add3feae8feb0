export { CodesPart as default } from "~/features/makes/CodesPart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
