export { MeaningStep as default } from "~/features/meaning/MeaningStep";
