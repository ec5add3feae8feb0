export { HookUp as default } from "~/features/hook-up/HookUp";
