import { memo, startTransition, useCallback, useMemo, useState } from "react";
import styled from "styled-components";
import type { Side } from "@core/record/join";
import type { PlanTold } from "~/workers/records.worker";
import { shortTime } from "~/store/format";
import { Button } from "~/ui/Button";
import { CheckBox, Choice } from "~/ui/Choice";
import { Caution, Mono, Row, Soft } from "~/ui/bits";
import { fieldLabel, gainsText, recordText, sideText } from "./difference-words";

const Line = styled.li`
  display: grid;
  gap: 10px;
  padding: 12px 0;
  border-top: 1px solid var(--rule);
  ul {
    display: grid;
    gap: 12px;
    padding-left: 16px;
    border-left: 3px solid var(--rule);
  }
`;

const several = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"}`;

/** "with 2 new jobs and 3 new readings" */
function news({ isNew, jobs, readings }: PlanTold["vehicles"][number]): string {
  const parts = [jobs && several(jobs, "new job"), readings && several(readings, "new reading")].filter(Boolean);
  const what = parts.join(" and ");
  return isNew ? `new here${what && `, with ${what}`}` : what;
}

/** So many vehicles and records of theirs are drawn at once: hundreds would hold the page up. */
const AT_ONCE = 20;

/** So few are taken or left one by one. */
const FEW = 5;

type Told = PlanTold["vehicles"][number];

/** Where somebody has to decide comes first, then what is joined, then what is only new. */
const inOrder = (vehicles: readonly Told[]): Told[] => {
  const weight = ({ differences }: Told) =>
    differences.some((d) => d.joined.conflicts.length) ? 0 : differences.length ? 1 : 2;
  return [...vehicles].sort((a, b) => weight(a) - weight(b));
};

/** How many of them are drawn where so many vehicles and records may be; one at least. */
function fitting(vehicles: readonly Told[], room: number): number {
  let n = 0;
  for (let used = 0; n < vehicles.length; n++) {
    used += 1 + vehicles[n].differences.length;
    if (used > room && n > 0) break;
  }
  return n;
}

const place = (key: string, field: string) => `${key} ${field}`;
type Say = (key: string, field: string, side: Side) => void;

/** What a file would bring, vehicle by vehicle; nothing is done before somebody says so. */
export function PlanSheet({
  plan,
  onDone,
  onLeave,
}: {
  plan: PlanTold;
  /** @param sides whose word counts, by record and field, where somebody has said so */
  onDone: (left: ReadonlySet<string>, sides: ReadonlyMap<string, Side>) => void;
  onLeave: () => void;
}) {
  const [left, leave] = useState<ReadonlySet<string>>(new Set());
  const [sides, say] = useState<ReadonlyMap<string, Side>>(new Map());
  const [busy, setBusy] = useState(false);
  const [room, setRoom] = useState(AT_ONCE);
  const vehicles = useMemo(() => inOrder(plan.vehicles), [plan.vehicles]);
  const shown = fitting(vehicles, room);
  const take = useCallback((id: string, on: boolean) => {
    leave((were) => (on ? new Set([...were].filter((other) => other !== id)) : new Set([...were, id])));
  }, []);
  const choose = useCallback<Say>((key, field, side) => {
    say((said) => new Map(said).set(place(key, field), side));
  }, []);
  const toDecide = vehicles.filter((v) => v.differences.some((d) => d.joined.conflicts.length)).length;
  return (
    <section aria-label="What the file brings" style={{ display: "grid", gap: 10 }}>
      <h3>The file saved {shortTime(plan.savedAt)} brings</h3>
      {plan.intact === false && (
        <Caution>
          This file is not as Klinko saved it: something in it was changed or damaged since. What can&apos;t be read is
          left out; look at what the rest says.
        </Caution>
      )}
      {vehicles.length > FEW && (
        <CheckBox
          isSelected={left.size === 0}
          isIndeterminate={left.size > 0 && left.size < vehicles.length}
          onChange={(on) => startTransition(() => leave(new Set(on ? [] : vehicles.map((v) => v.id))))}
        >
          <span>
            All {vehicles.length} vehicles{toDecide > 0 && `, ${toDecide} of them to be decided on`}
          </span>
        </CheckBox>
      )}
      <ul>
        {vehicles.slice(0, shown).map((v) => (
          <VehicleLine
            key={v.id}
            vehicle={v}
            taken={!left.has(v.id)}
            sides={v.differences.length ? sides : NONE}
            onTake={take}
            onSay={choose}
          />
        ))}
      </ul>
      {shown < vehicles.length && (
        <Row>
          <Button onPress={() => startTransition(() => setRoom(room + AT_ONCE))}>Show more</Button>
          <Soft>
            {shown} of {vehicles.length} are shown.
          </Soft>
        </Row>
      )}
      {vehicles.some((v) => v.differences.length > 0) && (
        <Soft>Lists are joined and lose nothing. What was removed on one device only comes back from the other.</Soft>
      )}
      <Row>
        <Button
          $look="primary"
          isDisabled={busy || left.size === vehicles.length}
          onPress={() => {
            setBusy(true);
            onDone(left, sides);
          }}
        >
          Bring it in
        </Button>
        <Button $look="quiet" onPress={onLeave}>
          Leave all as it is
        </Button>
      </Row>
    </section>
  );
}

const NONE: ReadonlyMap<string, Side> = new Map();

/** What the file brings of one vehicle, and what has to be decided there. */
const VehicleLine = memo(function VehicleLine({
  vehicle: v,
  taken,
  sides,
  onTake,
  onSay,
}: {
  vehicle: Told;
  taken: boolean;
  sides: ReadonlyMap<string, Side>;
  onTake: (id: string, on: boolean) => void;
  onSay: Say;
}) {
  return (
    <Line>
      <CheckBox isSelected={taken} onChange={(on) => onTake(v.id, on)}>
        <span>
          <Mono>{v.plate}</Mono> {news(v)}
        </span>
      </CheckBox>
      {v.differences.length > 0 && taken && (
        <ul>
          {v.differences.map(({ key, called, joined: { gains, conflicts } }) => (
            <li key={key} style={{ display: "grid", gap: 8 }}>
              <p>
                <strong>{recordText(called)}</strong> is here in another state.
                {gains.length > 0 && ` Joined, it gains ${gainsText(gains)}.`}
              </p>
              {conflicts.map((c) => (
                <Choice
                  key={c.field}
                  label={fieldLabel(c.field)}
                  value={sides.get(place(key, c.field)) ?? "here"}
                  onChange={(side) => onSay(key, c.field, side)}
                  options={[
                    { value: "here", label: `Here: ${sideText(c, c.here)}` },
                    { value: "file", label: `File: ${sideText(c, c.file)}` },
                  ]}
                />
              ))}
            </li>
          ))}
        </ul>
      )}
    </Line>
  );
});
