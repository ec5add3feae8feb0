import { useState } from "react";
import type { Vehicle } from "@core/record/types";
import { Button } from "~/ui/Button";
import { Photo } from "~/ui/Photo";
import { PhotoPicker } from "~/ui/PhotoPicker";
import { Row } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

/** The vehicle's own photo. */
export function VehiclePhoto({ vehicle, onChosen }: { vehicle: Vehicle; onChosen: (id: string | null) => void }) {
  const [problem, tell] = useState<string | null>(null);
  const { photo } = vehicle;
  return (
    <div style={{ display: "grid", gap: 8, justifyItems: "start" }}>
      {photo && <Photo id={photo} of={`of ${vehicle.plate}`} height={160} />}
      <Row $gap={8}>
        <PhotoPicker
          label={photo ? "Another photo" : "Add a photo"}
          of={{ vehicle: vehicle.id, job: "" }}
          onKept={onChosen}
          onProblem={tell}
        />
        {photo && (
          <Button $look="quiet" onPress={() => onChosen(null)}>
            Without a photo
          </Button>
        )}
      </Row>
      <Trouble problem={problem} />
    </div>
  );
}
