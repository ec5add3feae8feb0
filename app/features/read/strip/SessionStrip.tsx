import { useCallback, useMemo } from "react";
import type { Reading } from "@core/record/types";
import { Row } from "~/ui/bits";
import { Compare, useSecond } from "../Compare";
import type { PictureWatch } from "../picture/picture-watch";
import type { ReadingSession } from "../session";
import { useSession } from "../use-session";
import { SaveAs, type NamedLamp } from "./SaveAs";
import { Strip } from "./Strip";

/** The strip of a reading while it is made, and afterwards what can be done with it. */
export function SessionStrip({
  session,
  picture,
  playhead,
  onPlayhead,
  lamps,
  readings = [],
  title,
}: {
  session: ReadingSession;
  picture?: PictureWatch;
  playhead: number | null;
  onPlayhead?: (ms: number) => void;
  /** What is saved with this one; none: it is saved with another. */
  lamps?: readonly NamedLamp[];
  /** Earlier readings of this lamp, to compare with. */
  readings?: readonly Reading[];
  title: string;
}) {
  const { dialect } = session.home;
  const decoded = useSession(session, (s) => s.decoded);
  const marks = useSession(session, (s) => s.reading.marks);
  const watching = useSession(session, (s) => s.phase === "watching");
  const tempo = decoded?.tempo ?? 1;
  const { short, long } = dialect.marks;
  const period = (short + dialect.gaps.flash) * tempo;
  const lengths = useMemo(() => (long ? { short: short * tempo, long: long * tempo } : null), [short, long, tempo]);
  const seek = useCallback(
    (ms: number) => {
      if (picture?.seek(ms)) onPlayhead?.(ms);
    },
    [picture, onPlayhead],
  );
  const { other, setOther, second } = useSecond(marks);
  return (
    <>
      <Strip
        marks={marks}
        decoded={decoded}
        period={period}
        lengths={lengths}
        follow={watching}
        onEdit={session.edit}
        playhead={playhead}
        onSeek={seek}
        second={second}
      />
      {!watching && lamps && (
        <Row $gap={8} style={{ alignItems: "start", justifyContent: "space-between" }}>
          <Compare readings={readings} rest={dialect.rest} other={other} second={second} onOther={setOther} />
          <SaveAs lamps={lamps} title={title} />
        </Row>
      )}
    </>
  );
}
