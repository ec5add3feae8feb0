import { create } from "qrcode";
import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import { framesOf } from "@core/carry/frames";
import { exportJob } from "~/store/save-records";
import { packed } from "~/store/packed";
import { clock } from "~/store/clock";
import type { JobData } from "~/store/job-data";
import { jobPath } from "~/store/paths";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Caution, Plate, Row, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

/** White around the pattern is a part of it, in the dark too. */
const Card = styled.div`
  width: min(100%, calc(100dvh - 220px), 720px);
  padding: 20px;
  background: #fff;
  border-radius: 10px;
  svg {
    display: block;
    width: 100%;
    shape-rendering: crispEdges;
  }
`;

const PACES = { slow: 500, usual: 260, quick: 140 } as const;
type Pace = keyof typeof PACES;

/** One pattern as a path, a square a cell. */
function pathOf(frame: Uint8Array): { size: number; d: string } {
  const { modules } = create([{ data: frame as unknown as Uint8ClampedArray, mode: "byte" }], {
    errorCorrectionLevel: "L",
  });
  const { size } = modules;
  let d = "";
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size;) {
      let n = 0;
      while (x + n < size && modules.get(y, x + n)) n++;
      if (n) d += `M${x} ${y}h${n}v1h-${n}z`;
      x += n || 1;
    }
  return { size, d };
}

/** A job as patterns that another device's camera reads: from phone to laptop without a network or a file. */
export function CarryPage({ data }: { data: JobData }) {
  // What is shown stays one thing while it is shown, whatever another tab writes.
  const [{ job, vehicle, readings }] = useState(data);
  const [frames, setFrames] = useState<Uint8Array[] | null>(null);
  const [problem, tell] = useState<string | null>(null);
  const [pace, setPace] = useState<Pace>("usual");
  const [i, setI] = useState(0);
  useEffect(() => {
    let gone = false;
    const make = async () => {
      const made = framesOf(await packed(await exportJob(vehicle, job, readings, false)));
      if (gone) return;
      if (made) setFrames(made);
      else tell("This job is too large to be shown so: save it as a file instead.");
    };
    void make().catch((error: Error) => gone || tell(error.message));
    return () => {
      gone = true;
    };
  }, [vehicle, job, readings]);
  const many = frames?.length ?? 0;
  useEffect(() => (many > 1 ? clock.every(PACES[pace], () => setI((n) => (n + 1) % many)) : undefined), [many, pace]);
  const pattern = useMemo(() => (frames ? pathOf(frames[i % frames.length]) : null), [frames, i]);
  const round = Math.ceil((many * PACES[pace]) / 1000);
  return (
    <>
      <Row $gap={18}>
        <Plate>{vehicle.plate}</Plate>
        <h1>Show it to another device</h1>
      </Row>
      <p>
        On the other device open Settings, press &quot;Read it off another screen&quot;, and point its camera here until
        all parts are over there.
      </p>
      <Trouble problem={problem} />
      {pattern && (
        <>
          <Card>
            <svg
              viewBox={`0 0 ${pattern.size} ${pattern.size}`}
              role="img"
              aria-label={`Pattern ${i + 1} of ${many}, for a camera`}
            >
              <path d={pattern.d} fill="#000" />
            </svg>
          </Card>
          <Soft>
            {many === 1
              ? "One pattern holds all of it."
              : `${many} patterns, one round takes ${round} s. A camera may need two rounds.`}
          </Soft>
          {many > 1 && (
            <Choice<Pace>
              label="Pace"
              value={pace}
              onChange={setPace}
              options={[
                { value: "slow", label: "Slow, for an old camera" },
                { value: "usual", label: "Usual" },
                { value: "quick", label: "Quick" },
              ]}
            />
          )}
          <Caution>Photos and films stay on this device. To take photos along, save the job as a file.</Caution>
        </>
      )}
      <Row>
        <LinkButton to={jobPath(job.id)}>Back to the job</LinkButton>
        {problem && <Button onPress={() => location.reload()}>Try again</Button>}
      </Row>
    </>
  );
}
