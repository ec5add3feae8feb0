import { useEffect, useState } from "react";
import { demoHere, removeDemo } from "~/store/demo";
import { wipeEverything } from "~/store/wipe";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

/** What empties the garage: the demo fleet alone, or all that is on this device. */
export function StartAfresh({ demo }: { demo: boolean }) {
  const [here, setHere] = useState(0);
  const [told, tell] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    void demoHere().then(
      (ids) => setHere(ids.length),
      () => undefined,
    );
  }, []);
  const run = (what: () => Promise<void>, done: () => void) => {
    setProblem(null);
    void what().then(done, (error: Error) => setProblem(error.message));
  };
  return (
    <Sheet>
      <h2>Start afresh</h2>
      {!demo && here > 0 && (
        <>
          <p>The demo fleet is in your garage: {here === 1 ? "one made-up vehicle" : `${here} made-up vehicles`}.</p>
          <Row>
            <ConfirmButton
              label="Take the demo fleet out"
              question="Take it out, with what you tried on it?"
              sure="Take it out"
              onConfirm={() =>
                run(removeDemo, () => {
                  setHere(0);
                  tell("The demo fleet is out of your garage.");
                })
              }
            />
          </Row>
        </>
      )}
      <Soft>
        Wiping removes vehicles, jobs, readings, photos, kept films, your own makes and these settings from this
        browser. It cannot be undone: save all records as a file first.
      </Soft>
      <Row>
        <ConfirmButton
          label="Wipe everything"
          question="Wipe all that Klinko keeps on this device?"
          sure="Wipe it all"
          onConfirm={() => run(wipeEverything, () => location.assign("/"))}
        />
      </Row>
      <Soft role="status">{told}</Soft>
      <Trouble problem={problem} />
    </Sheet>
  );
}
