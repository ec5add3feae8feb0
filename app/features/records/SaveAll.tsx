import { useRef, useState } from "react";
import { saveEverything } from "~/store/save-all";
import { Button } from "~/ui/Button";
import { CheckBox } from "~/ui/Choice";
import { LongWork } from "~/ui/LongWork";
import { Row, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

/** All records as one file, with or without what is large. */
export function SaveAll() {
  const [what, choose] = useState({ photos: true, films: false });
  const [at, setAt] = useState<{ done: number; of: number } | null>(null);
  const [told, tell] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const broken = useRef<AbortController | null>(null);
  const save = async () => {
    const own = new AbortController();
    broken.current = own;
    setAt({ done: 0, of: 0 });
    tell(null);
    setProblem(null);
    try {
      await saveEverything(what, (done, of) => setAt((now) => now && { done, of }), own.signal);
      tell("The file is with your downloads. Keep it somewhere else than on this device.");
    } catch (error) {
      if (own.signal.aborted) tell("Nothing was saved.");
      else setProblem(`The file was not made: ${(error as Error).message}`);
    } finally {
      setAt(null);
    }
  };
  return (
    <>
      <Row>
        <CheckBox isSelected={what.photos} onChange={(photos) => choose({ ...what, photos })}>
          With photos
        </CheckBox>
        <CheckBox isSelected={what.films} onChange={(films) => choose({ ...what, films })}>
          With kept films, which makes it large
        </CheckBox>
      </Row>
      {at ? (
        <LongWork what="Writing the file" {...at} onCancel={() => broken.current?.abort()} />
      ) : (
        <Row>
          <Button onPress={() => void save()}>Save all records as a file</Button>
        </Row>
      )}
      <Soft role="status">{told}</Soft>
      <Trouble problem={problem} />
    </>
  );
}
