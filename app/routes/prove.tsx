export { ProveStep as default } from "~/features/prove/ProveStep";
