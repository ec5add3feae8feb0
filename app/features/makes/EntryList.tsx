import { useMemo, useState } from "react";
import styled from "styled-components";
import { newEntry } from "@core/pack/make/grid";
import type { Entry } from "@core/pack/pack";
import { scopeText } from "@core/pack/scope";
import { useMake } from "~/store/use-make";
import { Button } from "~/ui/Button";
import { Choice, Choices } from "~/ui/Choice";
import { Caution, Mono, Row, Soft } from "~/ui/bits";
import { LiveField, needed } from "./LiveField";
import { Columns } from "./layout";

const List = styled.ol`
  display: grid;
  > li {
    display: grid;
    gap: 10px;
    padding: 6px 0;
    border-top: 1px solid var(--rule);
    &:first-child {
      border-top: 0;
    }
  }
`;

const Line = styled.div`
  display: grid;
  grid-template-columns: 3.4em minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
`;

const keyOf = (e: Entry): string => `${e.code} ${JSON.stringify(e.scope ?? null)}`;

/** Numbers that a table in order seems to leave out: single ones between two that follow closely. */
function gapsIn(entries: readonly Entry[]): number[] {
  const codes = [...new Set(entries.map((e) => Number(e.code)))].sort((a, b) => a - b);
  return codes.flatMap((c, i) =>
    codes[i + 1] === c + 2 && codes[i - 1] === c - 1 && codes[i + 2] === c + 3 ? [c + 1] : [],
  );
}

/** All codes of a system, each to be changed in its place; gaps and doubles are told. */
export function EntryList({ entries, onStore }: { entries: readonly Entry[]; onStore: (entries: Entry[]) => void }) {
  const [open, setOpen] = useState<string | null>(null);
  const gaps = useMemo(() => gapsIn(entries), [entries]);
  const change = (old: Entry, next: Entry) => {
    // A field may store itself as it closes: what is closed stays so.
    setOpen((at) => (at === keyOf(old) ? keyOf(next) : at));
    onStore(entries.map((e) => (e === old ? next : e)));
  };
  const add = () => {
    let n = 1;
    while (entries.some((e) => Number(e.code) === n)) n++;
    const fresh = newEntry(String(n));
    onStore([...entries, fresh]);
    setOpen(keyOf(fresh));
  };
  return (
    <>
      {gaps.length > 0 && (
        <Soft>
          Between its neighbours {gaps.length === 1 ? "this number is" : "these numbers are"} missing:{" "}
          {gaps.slice(0, 12).join(", ")}. Many tables leave some out; look whether yours does.
        </Soft>
      )}
      <List aria-label="Codes">
        {entries.map((e) => (
          <li key={keyOf(e)}>
            <Line>
              <Mono style={{ fontWeight: 700, fontSize: "1.15rem" }}>{e.code}</Mono>
              <span>
                {e.title}
                {e.kind === "status" && " · no fault"}
                {e.scope && <Soft as="span"> · {scopeText(e.scope)}</Soft>}
              </span>
              <Button
                $look="quiet"
                aria-label={`${open === keyOf(e) ? "Close" : "Change"} code ${e.code}`}
                onPress={() => setOpen(open === keyOf(e) ? null : keyOf(e))}
              >
                {open === keyOf(e) ? "Close" : "Change"}
              </Button>
            </Line>
            {open === keyOf(e) && (
              <OneEntry
                entry={e}
                others={entries.filter((o) => o !== e)}
                onTold={(next) => change(e, next)}
                onRemove={() => (setOpen(null), onStore(entries.filter((o) => o !== e)))}
              />
            )}
          </li>
        ))}
      </List>
      <Row>
        <Button onPress={add}>Add a code</Button>
      </Row>
    </>
  );
}

function OneEntry({
  entry: e,
  others,
  onTold,
  onRemove,
}: {
  entry: Entry;
  others: readonly Entry[];
  onTold: (e: Entry) => void;
  onRemove: () => void;
}) {
  const { pack } = useMake();
  const keep = (field: string) => `make/${pack.id}/code-${keyOf(e)}/${field}`;
  const optional = (field: "sets" | "affects" | "caution") => (text: string) => {
    const { [field]: _, ...rest } = e;
    onTold(text ? { ...rest, [field]: text } : rest);
  };
  return (
    <div style={{ display: "grid", gap: 12, padding: "0 0 12px" }}>
      <Columns>
        <LiveField
          label="Code"
          keep={keep("code")}
          value={e.code}
          inputMode="numeric"
          maxLength={4}
          fault={(t) =>
            !/^[1-9]\d{0,3}$/.test(t)
              ? "Write it as a number, such as 24."
              : others.some((o) => o.code === t && JSON.stringify(o.scope) === JSON.stringify(e.scope))
                ? `${t} is there already: say for which years or engines each of them holds.`
                : null
          }
          onStore={(code) => onTold({ ...e, code })}
        />
        <LiveField
          label="What it means"
          keep={keep("title")}
          value={e.title}
          maxLength={200}
          fault={needed("Write what the table says.")}
          onStore={(title) => onTold({ ...e, title, ...(e.circuit === e.title ? { circuit: title } : {}) })}
        />
        <LiveField
          label="Circuit"
          keep={keep("circuit")}
          value={e.circuit}
          maxLength={200}
          fault={needed("Write which circuit it names.")}
          onStore={(circuit) => onTold({ ...e, circuit })}
        />
        <LiveField
          label="Set when"
          keep={keep("sets")}
          value={e.sets ?? ""}
          maxLength={1000}
          onStore={optional("sets")}
        />
        <LiveField
          label="Affects"
          keep={keep("affects")}
          value={e.affects ?? ""}
          maxLength={1000}
          onStore={optional("affects")}
        />
        <Choice
          label="Can it be driven"
          value={e.drive ?? "untold"}
          onChange={(drive) => {
            const { drive: _, ...rest } = e;
            onTold(drive === "untold" ? rest : { ...rest, drive });
          }}
          options={[
            { value: "untold", label: "Not said" },
            { value: "on", label: "Yes" },
            { value: "gently", label: "Gently, to be mended" },
            { value: "stop", label: "No" },
          ]}
        />
        <LiveField
          label="Caution"
          description="What must not be done with this fault"
          keep={keep("caution")}
          value={e.caution ?? ""}
          maxLength={1000}
          onStore={optional("caution")}
        />
        <LiveField
          label="Look first"
          description="A line each"
          rows={3}
          keep={keep("look")}
          value={e.lookFirst.join("\n")}
          maxLength={4000}
          fault={(t) => (t.split("\n").filter((l) => l.trim()).length > 8 ? "At most 8 lines." : null)}
          onStore={(t) =>
            onTold({
              ...e,
              lookFirst: t
                .split("\n")
                .map((l) => l.trim())
                .filter(Boolean),
            })
          }
        />
        <Where entry={e} keep={keep} onTold={onTold} />
      </Columns>
      <Kind entry={e} onTold={onTold} />
      {others.some((o) => o.code === e.code) && (
        <Caution>Code {e.code} stands here more than once: the years and engines tell them apart.</Caution>
      )}
      <Row>
        <Button $look="quiet" onPress={onRemove}>
          Take this code out
        </Button>
      </Row>
    </div>
  );
}

/** What one number may stand for, and in which years. */
function Where({
  entry: e,
  keep,
  onTold,
}: {
  entry: Entry;
  keep: (field: string) => string;
  onTold: (e: Entry) => void;
}) {
  const years = e.scope?.years;
  return (
    <>
      <LiveField
        label="Detailed faults behind it"
        description="Where one number stands for several: a line each, the fault, a colon, what tells it"
        rows={3}
        keep={keep("details")}
        value={(e.details ?? []).map((d) => `${d.title}: ${d.tell}`).join("\n")}
        maxLength={6000}
        fault={(t) => (t && !detailsIn(t) ? 'Each line needs a colon: "Heater relay: no click at key-on".' : null)}
        onStore={(t) => {
          const { details: _, ...rest } = e;
          const told = t ? detailsIn(t) : null;
          onTold(told ? { ...rest, details: told } : rest);
        }}
      />
      <LiveField
        label="Model years"
        description='Where it does not hold for all, such as "1988 to 1990"'
        keep={keep("years")}
        value={years ? `${years[0]} to ${years[1]}` : ""}
        maxLength={20}
        fault={(t) => (!t || yearsIn(t) ? null : 'Write two years, such as "1988 to 1990".')}
        onStore={(t) => {
          const { years: _, ...rest } = e.scope ?? {};
          const told = t ? yearsIn(t) : null;
          onTold(scoped(e, told ? { ...rest, years: told } : rest));
        }}
      />
    </>
  );
}

/** Whether it is a fault, whether it comes first, and for which engines it holds. */
function Kind({ entry: e, onTold }: { entry: Entry; onTold: (e: Entry) => void }) {
  const { pack } = useMake();
  const engines = pack.variants.flatMap((v) => v.engines.map((x) => x.id));
  const { first: _, ...plain } = e;
  return (
    <>
      <Choice
        label="What kind"
        value={e.kind}
        options={[
          { value: "fault", label: "A fault" },
          { value: "status", label: "No fault: it only says something" },
        ]}
        onChange={(kind) => onTold({ ...e, kind })}
      />
      <Choice
        label="Before all other codes"
        value={e.first ? "yes" : "no"}
        options={[
          { value: "no", label: "No" },
          { value: "yes", label: "Yes, this one first" },
        ]}
        onChange={(to) => onTold(to === "yes" ? { ...e, first: "This one before all others." } : plain)}
      />
      {engines.length > 1 && (
        <Choices
          label="Engines"
          options={engines}
          value={e.scope?.engines ?? engines}
          onChange={(on) => {
            const { engines: _, ...rest } = e.scope ?? {};
            onTold(scoped(e, on.length && on.length < engines.length ? { ...rest, engines: on } : rest));
          }}
        />
      )}
    </>
  );
}

/** An entry that holds where a scope says; without one it holds everywhere. */
function scoped(entry: Entry, scope: Entry["scope"]): Entry {
  const { scope: _, ...rest } = entry;
  return scope && Object.keys(scope).length ? { ...rest, scope } : rest;
}

/** Lines of "fault: what tells it", or null where one is not. */
function detailsIn(text: string): NonNullable<Entry["details"]> | null {
  const lines = text.split("\n").filter((l) => l.trim());
  const found = lines.flatMap((l) => {
    const at = l.indexOf(":");
    const [title, tell] = [l.slice(0, at).trim(), l.slice(at + 1).trim()];
    return at > 0 && title && tell ? [{ title, tell }] : [];
  });
  return found.length === lines.length && found.length > 0 && found.length <= 12 ? found : null;
}

function yearsIn(text: string): [number, number] | null {
  const found = text.match(/\b(?:19[5-9]\d|20[0-3]\d)\b/g)?.map(Number) ?? [];
  const [from, to = from] = found;
  return found.length && found.length <= 2 && from <= to && to <= 2035 ? [from, to] : null;
}
