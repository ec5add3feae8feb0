export { ClearStep as default } from "~/features/clear/ClearStep";
