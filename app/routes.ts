import { index, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  index("routes/garage.tsx"),
  route("vehicles/new", "routes/vehicle-new.tsx"),
  route("vehicles/:vehicleId", "routes/vehicle.tsx"),
  route("jobs/:jobId", "routes/job.tsx", [
    index("routes/job-index.tsx"),
    route("story", "routes/story.tsx"),
    route("way-in", "routes/way-in.tsx"),
    route("lamp-check", "routes/lamp-check.tsx"),
    route("hook-up", "routes/hook-up.tsx"),
    route("read", "routes/read.tsx"),
    route("meaning", "routes/meaning.tsx"),
    route("clear", "routes/clear.tsx"),
    route("prove", "routes/prove.tsx"),
  ]),
  route("jobs/:jobId/sheet", "routes/sheet.tsx"),
  route("jobs/:jobId/kept", "routes/job-kept.tsx"),
  route("watch", "routes/watch.tsx"),
  route("find", "routes/find.tsx"),
  route("simulated/:vehicleId", "routes/simulated.tsx"),
  route("settings", "routes/settings.tsx"),
  route("*", "routes/not-found.tsx"),
] satisfies RouteConfig;
