export { ReadStep as default } from "~/features/read/ReadStep";
