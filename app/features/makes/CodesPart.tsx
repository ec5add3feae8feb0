import { useState } from "react";
import { withEntries } from "@core/pack/make/build";
import { withoutDoubles } from "@core/table/entries";
import type { Entry } from "@core/pack/pack";
import { scopeText } from "@core/pack/scope";
import { useDraft } from "~/store/use-draft";
import { useEdit, useMake } from "~/store/use-make";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { EntryGrid } from "./EntryGrid";
import { EntryList } from "./EntryList";
import { NextPart } from "./NextPart";
import { PageIn } from "./PageIn";

const isShown = (v: unknown): v is "list" | "grid" => v === "list" || v === "grid";

/** What the codes mean: from the page of the manual, then to be mended by hand. */
export function CodesPart() {
  const { pack } = useMake();
  const { edit, problem } = useEdit(pack);
  const [picked, pick] = useState("");
  const table = pack.tables.find((t) => t.id === picked) ?? pack.tables[0];
  const { entries } = table;
  const several = pack.systems.length > 1 ? pack.systems.find((s) => s.id === table.system)?.name : null;
  const [adding, setAdding] = useState(false);
  const [shown, setShown] = useDraft<"list" | "grid">(`make/${pack.id}/codes-as`, "list", isShown);
  const store = (next: readonly Entry[]) => edit((p) => withEntries(p, table.id, next));
  const take = (fresh: readonly Entry[], mode: "all" | "beside") => {
    const same = (a: Entry, b: Entry) => a.code === b.code && JSON.stringify(a.scope) === JSON.stringify(b.scope);
    const kept = mode === "all" ? [] : entries.filter((e) => !fresh.some((f) => same(e, f)));
    store(withoutDoubles([...kept, ...fresh]));
    setAdding(false);
  };
  const open = adding || entries.length === 0;
  return (
    <>
      <h1>
        {several && `${several}: `}
        {entries.length ? `${entries.length} codes` : several ? "what do the codes mean?" : "What do the codes mean?"}
      </h1>
      {pack.tables.length > 1 && (
        <Choice
          label="Which table"
          value={table.id}
          onChange={pick}
          options={pack.tables.map((t) => ({
            value: t.id,
            label: `${pack.systems.find((s) => s.id === t.system)?.name ?? t.system}${t.scope ? `, ${scopeText(t.scope)}` : ""}`,
          }))}
        />
      )}
      {open && <PageIn key={table.id} system={table.system} entries={entries} onTake={take} />}
      {entries.length > 0 && (
        <>
          <Row>
            {open ? (
              <Button $look="quiet" onPress={() => setAdding(false)}>
                Leave the page aside
              </Button>
            ) : (
              <Button onPress={() => setAdding(true)}>Read another page</Button>
            )}
            <ConfirmButton
              label="Take all codes out"
              question={`Take all ${entries.length} codes out?`}
              sure="Take them out"
              onConfirm={() => store([])}
            />
          </Row>
          <Sheet>
            <Choice
              label="Shown as"
              value={shown}
              onChange={setShown}
              options={[
                { value: "list", label: "A list" },
                { value: "grid", label: "A grid, to type and paste into" },
              ]}
            />
            {shown === "list" ? (
              <EntryList entries={entries} onStore={store} />
            ) : (
              <EntryGrid key={table.id} keep={`make/${pack.id}/grid/${table.id}`} entries={entries} onStore={store} />
            )}
          </Sheet>
        </>
      )}
      {entries.length === 0 && !open && <Soft>No code yet.</Soft>}
      <Trouble problem={problem} />
      {entries.length > 0 && <NextPart after="codes" />}
    </>
  );
}
