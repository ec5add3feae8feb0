export { LampCheckStep as default } from "~/features/lamp-check/LampCheckStep";
