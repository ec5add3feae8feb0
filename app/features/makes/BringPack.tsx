import { useState } from "react";
import { Link, useRevalidator } from "react-router";
import { differences, type Difference } from "@core/pack/make/diff";
import type { Pack } from "@core/pack/pack";
import type { PackFault } from "@core/pack/schema";
import { StoreProblem } from "~/store/box";
import { freeId, packById, ships, writePack } from "~/store/packs";
import { makePath } from "~/store/paths";
import { flashWorker } from "~/workers/flash";
import { Button } from "~/ui/Button";
import { FileDrop } from "~/ui/FileDrop";
import { Caution, Row, Soft } from "~/ui/bits";

type State =
  | { phase: "idle" }
  | { phase: "reading"; name: string }
  | { phase: "refused"; name: string; faults: PackFault[] }
  | { phase: "asks"; pack: Pack; differ: Difference[]; unknown: PackFault[] }
  | { phase: "done"; pack: Pack; says: string; unknown: PackFault[] };

/** A make from a file: checked as if it meant harm; one that is here already is compared before anything is written over. */
export function BringPack() {
  const [state, setState] = useState<State>({ phase: "idle" });
  const { revalidate } = useRevalidator();
  const store = async (pack: Pack, says: string, unknown: PackFault[]) => {
    try {
      await writePack(pack);
    } catch (error) {
      const why =
        error instanceof StoreProblem || error instanceof RangeError ? error.message : "it could not be stored";
      return setState({ phase: "refused", name: pack.make, faults: [{ path: "", message: why }] });
    }
    setState({ phase: "done", pack, says, unknown });
    await revalidate();
  };
  const open = async (file: File) => {
    const { name } = file;
    setState({ phase: "reading", name });
    const read = await flashWorker()
      .readPack(file)
      .catch(() => ({ faults: [{ path: "(file)", message: "could not be read. Try it once more" }] }));
    if ("faults" in read) return setState({ phase: "refused", name, faults: read.faults });
    const { pack, unknown } = read;
    const here = packById(pack.id);
    if (!here) return store(pack, "is here now.", unknown);
    const differ = differences(here, pack);
    if (!differ.length)
      return setState({ phase: "done", pack: here, says: "is here already, and says the same.", unknown });
    setState({ phase: "asks", pack, differ, unknown });
  };
  const copy = (pack: Pack): Pack => ({ ...pack, id: freeId(pack.id) });
  return (
    <div style={{ display: "grid", gap: 10 }}>
      <FileDrop
        label={state.phase === "reading" ? `Reading ${state.name} …` : "Drop a make's file here"}
        pick="Bring a make in"
        accept={[".json", "application/json"]}
        onFile={(file) => void open(file)}
      >
        A file that Klinko saved, on this device or another.
      </FileDrop>
      {state.phase === "refused" && (
        <div role="alert">
          <Caution>
            {state.name} was not brought in; what is here stays as it is.
            {state.faults.length > 1 && ` ${state.faults.length} faults:`}
          </Caution>
          <ul>
            {state.faults.slice(0, 30).map((f, i) => (
              <li key={i}>
                {f.path} {f.message}
              </li>
            ))}
          </ul>
          {state.faults.length > 30 && <Soft>And {state.faults.length - 30} more.</Soft>}
        </div>
      )}
      {state.phase === "asks" && (
        <div role="status" style={{ display: "grid", gap: 10 }}>
          <p>
            <strong>{state.pack.make} is here already.</strong> The file differs from it:
          </p>
          <ul>
            {state.differ.slice(0, 40).map((d, i) => (
              <li key={i}>{d.says}</li>
            ))}
          </ul>
          {state.differ.length > 40 && <Soft>And {state.differ.length - 40} more.</Soft>}
          <Row>
            <Button onPress={() => void store(copy(state.pack), "is here beside the other.", state.unknown)}>
              Keep both
            </Button>
            {!ships(state.pack.id) && (
              <Button
                $look="danger"
                onPress={() => void store(state.pack, "took the place of the one that was here.", state.unknown)}
              >
                Put it in its place
              </Button>
            )}
            <Button $look="quiet" onPress={() => setState({ phase: "idle" })}>
              Leave it
            </Button>
          </Row>
        </div>
      )}
      {state.phase === "done" && (
        <div role="status">
          <p>
            <Link to={makePath(state.pack.id)}>{state.pack.make}</Link> {state.says}
          </p>
          {state.unknown.length > 0 && (
            <ul>
              {state.unknown.slice(0, 10).map((f) => (
                <li key={f.path}>
                  {f.path} {f.message}.
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
    </div>
  );
}
