/** The demo fleet as the build made it: see vite.config.ts. */
declare module "virtual:demo-fleet" {
  const fleet: { builtAt: number; docs: import("@core/record/types").Doc[] };
  export default fleet;
}
