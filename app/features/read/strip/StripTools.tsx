import { ZoomIn, ZoomOut } from "lucide-react";
import type { MarkEdit } from "@core/record/edit";
import { Button } from "~/ui/Button";
import { Kbd, Row, Soft } from "~/ui/bits";
import { describe } from "./BandLine";
import type { Corrections } from "./use-corrections";

/** What can be done with what is picked; where nothing is, how to begin. */
export function StripTools({
  at,
  quiet,
  zoom,
  setZoom,
  onEdit,
}: {
  at: Corrections;
  /** Nothing is offered: more is coming, or there is nothing yet. */
  quiet: boolean;
  zoom: number;
  setZoom: (zoom: number) => void;
  onEdit: (edit: MarkEdit) => void;
}) {
  const { current, spot } = at;
  if (current) return <MarkTools at={at} onEdit={onEdit} />;
  if (spot !== null)
    return (
      <Row role="toolbar" aria-label="Here" $gap={6}>
        <Button onPress={() => at.addAt(spot)}>Add a flash at {(spot / 1000).toFixed(1)} s</Button>
        <Button $look="quiet" onPress={() => at.leave()}>
          Leave it
        </Button>
      </Row>
    );
  if (quiet) return null;
  return (
    <Row $gap={6}>
      <Soft style={{ flex: "1 1 200px" }}>Touch a mark to correct it, or an empty place to add one.</Soft>
      <Row $gap={6}>
        <Button aria-label="Smaller" onPress={() => setZoom(zoom / 1.5)}>
          <ZoomOut size={20} aria-hidden />
        </Button>
        <Button aria-label="Larger" onPress={() => setZoom(zoom * 1.5)}>
          <ZoomIn size={20} aria-hidden />
        </Button>
      </Row>
    </Row>
  );
}

function MarkTools({ at, onEdit }: { at: Corrections; onEdit: (edit: MarkEdit) => void }) {
  const { turns } = at;
  const current = at.current!;
  return (
    <Row role="toolbar" aria-label="Correct this mark" $gap={6}>
      <Soft style={{ flexBasis: "100%" }}>{describe(current)}. Drag it along the strip, or use the buttons.</Soft>
      <Button onPress={() => at.step(-1)} aria-label="Mark before">
        ‹
      </Button>
      <Button onPress={() => at.step(1)} aria-label="Mark after">
        ›
      </Button>
      <Button onPress={at.drop}>
        Remove <Kbd>Del</Kbd>
      </Button>
      <Button onPress={() => at.add(-1)}>Add before</Button>
      <Button onPress={() => at.add(1)}>
        Add after <Kbd>+</Kbd>
      </Button>
      <Button onPress={() => at.move(-50)}>Earlier</Button>
      <Button onPress={() => at.move(50)}>Later</Button>
      {at.timed && (
        <>
          <Button onPress={() => at.stretch(-100)}>Shorter</Button>
          <Button onPress={() => at.stretch(100)}>Longer</Button>
        </>
      )}
      {turns && (
        <Button onPress={() => onEdit({ kind: "turn", id: current.id, ms: turns.ms })}>Make it {turns.to}</Button>
      )}
    </Row>
  );
}
