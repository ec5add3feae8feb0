import type { Config } from "@react-router/dev/config";

export default {
  ssr: true,
  // Every route is known at the first load: nothing has to be fetched in a shed with no signal.
  routeDiscovery: { mode: "initial" },
} satisfies Config;
