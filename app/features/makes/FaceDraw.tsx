import { useEffect, useRef, useState } from "react";
import { FileTrigger } from "react-aria-components/FileTrigger";
import { faceFault, faceOf, MOST_CORNERS, placeOf, withFace, type Face, type Point } from "@core/pack/make/face";
import type { Connector } from "@core/pack/pack";
import { flag, holds, list, map, nullable, number, object, pair, text, word, type Of } from "@core/schema/rule";
import { dropDraft } from "~/store/drafts";
import { useDraft } from "~/store/use-draft";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { FaceSheet } from "./FaceSheet";

const share = number(0, 1);
const point = pair(share, share);
const drawnRule = object({
  corners: list(point, { max: MOST_CORNERS }),
  places: map(word(3), point),
  words: text(200),
  mirrored: flag,
  /** Height by width of what it is drawn on. */
  tall: number(0.1, 10),
  /** Name of the photo beneath; the photo itself is not kept. */
  photo: nullable(text(400)),
});
type Drawn = Of<typeof drawnRule>;
const isDrawn = (v: unknown): v is Drawn => "value" in holds(drawnRule, v);

/** Of a blank sheet. */
const TALL = 0.6;

/** A plug's face, drawn over a photo of it or on a blank sheet: corner by corner, and a touch for each cavity. */
export function FaceDraw({
  plug,
  keep,
  onTake,
  onLeave,
}: {
  plug: Connector;
  keep: string;
  onTake: (plug: Connector) => void;
  onLeave: () => void;
}) {
  const names = plug.cavities.map((c) => c.id);
  const [face, setFace] = useDraft<Drawn>(keep, first(plug), isDrawn);
  const [what, setWhat] = useState<"shell" | "cavities">("shell");
  const [next, setNext] = useState<string | null>(null);
  const { url, problem, open } = usePicture((name, tall) =>
    setFace({ ...face, photo: name, tall, corners: [], places: {} }),
  );
  const told = named(face, names);
  const fault = faceFault(told, names, face.tall) ?? (face.words.trim() ? null : "Say what its outline looks like.");
  const unplaced = names.filter((n) => !(n in told.places));
  const coming = next ?? unplaced[0] ?? null;
  const corner = (at: Point) => {
    if (face.corners.length >= MOST_CORNERS) return;
    const i = placeOf(at, face.corners);
    setFace({ ...face, corners: [...face.corners.slice(0, i), [...at], ...face.corners.slice(i)] });
  };
  const cavity = (at: Point) => {
    if (!coming) return;
    setFace({ ...face, places: { ...told.places, [coming]: [...at] } as Drawn["places"] });
    setNext(null);
  };
  const finish = (then: () => void) => void dropDraft(keep).then(then, then);
  return (
    <Sheet aria-label="Draw its face">
      <h2>Draw its face</h2>
      <Beneath onFile={open} photo={face.photo} url={url} />
      <Trouble problem={problem} />
      <Choice
        label="What you touch in now"
        value={what}
        onChange={setWhat}
        options={[
          { value: "shell", label: "Corners of the shell" },
          { value: "cavities", label: "Cavities" },
        ]}
      />
      {what === "cavities" && (
        <Choice
          label="Which one comes next"
          value={coming}
          onChange={setNext}
          options={names.map((n) => ({ value: n, label: n in told.places ? `${n} ✓` : n }))}
        />
      )}
      <FaceSheet
        face={told}
        tall={face.tall}
        url={url}
        what={what}
        onTouch={what === "shell" ? corner : cavity}
        onFace={({ corners, places }) => setFace({ ...face, corners, places } as Drawn)}
      />
      <Row $gap={8}>
        {what === "shell" ? (
          <Button onPress={() => corner(middleOf(face.corners))}>Put a corner in</Button>
        ) : (
          <Button isDisabled={!coming} onPress={() => cavity([0.5, 0.5])}>
            {coming ? `Put ${coming} in the middle` : "All are placed"}
          </Button>
        )}
        <Button $look="quiet" onPress={() => setFace({ ...face, corners: [], places: {} })}>
          Clear the sheet
        </Button>
      </Row>
      <Soft>Drag to move. Keys: arrows move, Shift and arrows move further, Delete takes out.</Soft>
      <Choice
        label="It is seen"
        value={face.mirrored ? "wire" : "socket"}
        onChange={(side) => setFace({ ...face, mirrored: side === "wire" })}
        options={[
          { value: "socket", label: "Into the socket" },
          { value: "wire", label: "From the wire side" },
        ]}
      />
      <Field
        label="What its outline looks like"
        description='As somebody would call it, such as "D-shaped"'
        value={face.words}
        maxLength={200}
        onChange={(words) => setFace({ ...face, words })}
      />
      <p role="status">{fault ?? "All cavities are within the shell."}</p>
      <Row $gap={8}>
        <Button
          $look="primary"
          isDisabled={fault !== null}
          onPress={() => finish(() => onTake(withFace(plug, told, face.tall, face.words.trim(), face.mirrored)))}
        >
          Take this face
        </Button>
        <Button onPress={() => finish(onLeave)}>Leave it as it was</Button>
      </Row>
    </Sheet>
  );
}

function first(plug: Connector): Drawn {
  const { corners, places } = faceOf(plug, TALL);
  return {
    corners: corners.map((c) => [...c] as [number, number]),
    places: Object.fromEntries(Object.entries(places).map(([n, p]) => [n, [...p] as [number, number]])),
    words: plug.outline?.words ?? "",
    mirrored: false,
    tall: TALL,
    photo: null,
  };
}

/** What is drawn of cavities that the plug still has. */
const named = ({ corners, places }: Drawn, names: readonly string[]): Face => ({
  corners,
  places: Object.fromEntries(Object.entries(places).filter(([name]) => names.includes(name))),
});

/** Where a corner comes by a button: halfway along the longest edge, else around the middle. */
function middleOf(corners: readonly Point[]): Point {
  if (corners.length < 3) return ([[0.2, 0.2], [0.8, 0.2], [0.5, 0.8]] as const)[corners.length]; // prettier-ignore
  const edges = corners.map((a, i) => [a, corners[(i + 1) % corners.length]] as const);
  const long = ([a, b]: (typeof edges)[number]) => Math.hypot(a[0] - b[0], a[1] - b[1]);
  const [a, b] = edges.reduce((best, e) => (long(e) > long(best) ? e : best));
  return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
}

/** The photo beneath, by its address, as long as the page is open. */
function usePicture(onOpen: (name: string, tall: number) => void) {
  const [url, setUrl] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const latest = useRef(onOpen);
  useEffect(() => {
    latest.current = onOpen;
  });
  useEffect(() => () => (url ? URL.revokeObjectURL(url) : undefined), [url]);
  const open = async (file: File) => {
    try {
      const picture = await createImageBitmap(file);
      const tall = picture.height / picture.width;
      picture.close();
      if (!(tall > 0.2 && tall < 5)) throw new RangeError();
      setProblem(null);
      setUrl(URL.createObjectURL(file));
      latest.current(file.name, tall);
    } catch {
      setProblem(`${file.name} can't be used as a photo of the plug. Take a JPEG, PNG or WebP picture.`);
    }
  };
  return { url, problem, open };
}

function Beneath({
  photo,
  url,
  onFile,
}: {
  photo: string | null;
  url: string | null;
  onFile: (file: File) => Promise<void>;
}) {
  return (
    <Row>
      <FileTrigger acceptedFileTypes={["image/*"]} onSelect={(files) => files?.[0] && void onFile(files[0])}>
        <Button>{photo ? "Another photo beneath" : "Put a photo beneath"}</Button>
      </FileTrigger>
      <Soft style={{ flex: "1 1 220px" }}>
        {photo && !url
          ? `The drawing was made on ${photo}. The photo itself is not kept: give it once more to see it.`
          : "Straight from the front. The photo is only there to draw on, and is not kept."}
      </Soft>
    </Row>
  );
}
