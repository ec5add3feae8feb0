import { vehicleIntents } from "~/features/makes/intents";
import { makeAction } from "~/store/use-make";

export const clientAction = makeAction(vehicleIntents);
export { VehiclePart as default } from "~/features/makes/VehiclePart";
export { StepProblem as ErrorBoundary } from "~/ui/Problem";
