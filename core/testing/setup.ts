import fc from "fast-check";
import "../schema/joi-now";

// The same cases each time, so that a red test is red again; FC_SEED=… tries others.
fc.configureGlobal({ endOnFailure: true, seed: Number(process.env.FC_SEED ?? 20261124) });
