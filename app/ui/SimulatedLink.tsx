import { ExternalLink } from "lucide-react";
import type { Vehicle } from "@core/record/types";
import { hasStandIn } from "@packs/demo-faults";
import { simulatedPath } from "~/store/paths";

/** The stand-in of a demo vehicle, in a window of its own beside the job. */
export function SimulatedLink({ vehicle }: { vehicle: Pick<Vehicle, "id"> }) {
  if (!hasStandIn(vehicle.id)) return null;
  return (
    <p>
      <a
        href={simulatedPath(vehicle.id)}
        target={`klinko-simulated-${vehicle.id}`}
        rel="opener"
        style={{ display: "inline-flex", gap: 8, minHeight: 48, alignItems: "center" }}
      >
        Open the simulated vehicle <ExternalLink size={18} aria-hidden />
      </a>
    </p>
  );
}
