export { VehiclePart as default } from "~/features/makes/VehiclePart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
