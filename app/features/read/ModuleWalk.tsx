import { useState } from "react";
import styled from "styled-components";
import { readLine } from "@core/display/dash-line";
import { entriesFor } from "@core/pack/scope";
import type { ModuleWalk as Tells } from "@core/pack/way";
import { runToAsk, wasCleared } from "@core/job/epochs";
import type { Reading, SystemList } from "@core/record/types";
import type { JobData } from "~/store/job-data";
import { useDraft } from "~/store/use-draft";
import { Button } from "~/ui/Button";
import { Field } from "~/ui/Field";
import { Kbd, Mono, Row, Sheet, Soft } from "~/ui/bits";
import { mono } from "~/ui/theme";
import { sayLists, useRecordLists } from "./record-lists";
import { RunChoice } from "./RunChoice";
import { ShownLine } from "./ShownLine";

const Modules = styled.ol`
  display: grid;
  gap: 10px;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 190px), 1fr));
`;

const Module = styled.li`
  display: grid;
  gap: 6px;
  align-content: start;
  padding: 12px 14px;
  border: 2px solid var(--line);
  border-radius: 12px;
  background: var(--sheet);
  &[aria-current] {
    border-color: var(--petrol);
    background: var(--tint);
  }
  h2 span {
    ${mono}
    display: inline-block;
    min-width: 1.5em;
    margin-right: 0.4em;
    padding: 0 6px;
    text-align: center;
    border-radius: 5px;
    background: var(--band);
    color: #fff;
  }
`;

interface Walk {
  at: number;
  texts: Record<string, string[]>;
  done: string[];
}
const isWalk = (v: unknown): v is Walk =>
  typeof v === "object" &&
  v !== null &&
  typeof (v as Walk).at === "number" &&
  Array.isArray((v as Walk).done) &&
  typeof (v as Walk).texts === "object";

/** A dash that walks through its modules: module by module, what it shows is typed, with the next button named. */
export function ModuleWalk({ data, tells }: { data: JobData; tells: Tells }) {
  const { job, systems, pack, vehicle, access } = data;
  const modules = tells.modules.filter((m) => systems.some((s) => s.system === m.system));
  const [walk, setWalk] = useDraft<Walk>(`${job.id}/${access.way.id}`, { at: 0, texts: {}, done: [] }, isWalk);
  const [run, setRun] = useState<Reading["run"]>(() => runToAsk(data, access.system));
  const record = useRecordLists(data);
  const at = Math.min(walk.at, modules.length - 1);
  const here = modules[at];
  const nameOf = (system: string) => modules.find((m) => m.system === system)?.name ?? system;
  const lineOf = (system: string, letter: string) => (text: string) =>
    readLine(
      text.startsWith(letter) ? text.slice(letter.length).trim() : text,
      [{ system, prefix: "", digits: tells.digits }],
      tells.none,
    );
  const listOf = (system: string, letter: string): SystemList => {
    const read = (walk.texts[system] ?? []).map(lineOf(system, letter));
    const codes = [...new Set(read.flatMap((r) => (r.kind === "code" ? [r.code] : [])))];
    const unclear = read.flatMap((r) => (r.kind === "unclear" ? [r.text] : []));
    const none = read.some((r) => r.kind === "none");
    return { state: codes.length ? "codes" : none ? "none" : "unclear", codes, unclear };
  };
  const lists = Object.fromEntries(
    modules.filter((m) => walk.done.includes(m.system)).map((m) => [m.system, listOf(m.system, m.letter)]),
  );
  const texts = walk.texts[here.system] ?? [];
  const replace = (list: string[]) => setWalk({ ...walk, texts: { ...walk.texts, [here.system]: list } });
  const finish = (list = texts) => {
    setWalk({
      at: Math.min(at + 1, modules.length - 1),
      texts: { ...walk.texts, [here.system]: list },
      done: [...new Set([...walk.done, here.system])],
    });
  };
  const all = modules.every((m) => walk.done.includes(m.system));
  const codesMode = tells.submodes.findIndex((s) => s.shows === "codes");
  const presses = tells.submodes.length - codesMode;
  return (
    <>
      <h1 aria-live="polite">
        {all
          ? "All modules are read."
          : walk.done.includes(here.system)
            ? `${here.name} is read. Which module is open?`
            : `${here.letter} ${tells.submodes[codesMode].title}: what does the dash show?`}
      </h1>
      <Soft>
        <strong>{tells.nextModule}</strong> takes the next module, <strong>{tells.nextSubmode}</strong> the next
        sub-mode ({tells.submodes.map((s) => s.title).join(", ")}, then round). Stay in{" "}
        {tells.submodes[codesMode].title}; {presses} presses of {tells.nextSubmode} come back to it. Never hold a button
        in {tells.submodes.find((s) => s.shows === "erase")?.title}: it wipes the module.
      </Soft>
      {wasCleared(data, access.memory) && <RunChoice value={run} onChange={setRun} />}
      <ModuleList modules={modules} walk={walk} setWalk={setWalk} lists={lists} at={all ? null : at} />
      {!all && !walk.done.includes(here.system) && (
        <Shown
          key={here.system}
          here={here}
          tells={tells}
          texts={texts}
          lineOf={lineOf(here.system, here.letter)}
          entries={entriesFor(pack, vehicle, here.system)}
          replace={replace}
          finish={finish}
        />
      )}
      <Row>
        <Button
          $look={all ? "primary" : "secondary"}
          isDisabled={!walk.done.length}
          onPress={() => {
            setWalk({ at: 0, texts: {}, done: [] });
            void record({ input: "modules", run, lists, says: sayLists(lists, nameOf) });
          }}
        >
          Record this reading
        </Button>
        {!all && walk.done.length > 0 && (
          <Soft>
            {modules.length - walk.done.length === 1
              ? "One module is"
              : `${modules.length - walk.done.length} modules are`}{" "}
            not read yet.
          </Soft>
        )}
      </Row>
    </>
  );
}

type WalkedModule = Tells["modules"][number];

/** All modules of the walk, with what each has told so far. @param at the one that is open; null when all are read */
function ModuleList({
  modules,
  walk,
  setWalk,
  lists,
  at,
}: {
  modules: readonly WalkedModule[];
  walk: Walk;
  setWalk: (walk: Walk) => void;
  lists: Readonly<Record<string, SystemList>>;
  at: number | null;
}) {
  return (
    <Modules aria-label="Modules of the walk">
      {modules.map((m, i) => {
        const list = walk.done.includes(m.system) ? lists[m.system] : null;
        return (
          <Module key={m.system} aria-current={i === at ? "step" : undefined}>
            <h2>
              <span>{m.letter}</span>
              {m.name}
            </h2>
            <p>
              {list ? (
                list.state === "none" ? (
                  "nothing stored"
                ) : (
                  <Mono>{[...list.codes, ...list.unclear].join(", ") || "not clear"}</Mono>
                )
              ) : (
                <Mono>{(walk.texts[m.system] ?? []).join(", ") || "not read yet"}</Mono>
              )}
            </p>
            {i !== at && (
              <Button
                $look="quiet"
                style={{ justifySelf: "start" }}
                onPress={() => setWalk({ ...walk, at: i, done: walk.done.filter((d) => d !== m.system) })}
              >
                Read {m.name}
              </Button>
            )}
          </Module>
        );
      })}
    </Modules>
  );
}

/** What the dash shows for one module, line by line. */
function Shown({
  here,
  tells,
  texts,
  lineOf,
  entries,
  replace,
  finish,
}: {
  here: WalkedModule;
  tells: Tells;
  texts: readonly string[];
  lineOf: (text: string) => ReturnType<typeof readLine>;
  entries: ReturnType<typeof entriesFor>;
  replace: (texts: string[]) => void;
  finish: (texts?: string[]) => void;
}) {
  const [typed, setTyped] = useState("");
  return (
    <Sheet>
      {texts.map((t, i) => (
        <div key={i}>
          <ShownLine
            text={t}
            line={lineOf(t)}
            entries={entries}
            onTakeOut={() => replace(texts.toSpliced(i, 1))}
            onPick={(code) => replace(texts.with(i, code.padStart(tells.digits, "0")))}
          />
        </div>
      ))}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (typed.trim()) replace([...texts, typed.trim().slice(0, 12)]);
          setTyped("");
        }}
        style={{ display: "grid", gap: 10 }}
      >
        <Field
          key={here.system}
          label={`After the ${here.letter}`}
          description="Several codes follow one another every few seconds. A digit that is not clear: ?"
          value={typed}
          onChange={setTyped}
          autoFocus
          autoComplete="off"
        />
        <Row>
          <Button type="submit">
            Take it <Kbd>Enter</Kbd>
          </Button>
          {texts.length === 0 ? (
            <Button $look="primary" onPress={() => finish([tells.none])}>
              <Mono>{tells.none}</Mono> nothing: next module
            </Button>
          ) : (
            <Button $look="primary" onPress={() => finish()}>
              All codes of {here.name}: press {tells.nextModule}
            </Button>
          )}
        </Row>
      </form>
    </Sheet>
  );
}
