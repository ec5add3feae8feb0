import { useState } from "react";
import { useFetcher } from "react-router";
import styled from "styled-components";
import {
  CONDITIONS,
  drivesOf,
  effectsOf,
  FEW,
  holdsAlone,
  MAY_SET_IT_OFF,
  SETS_IT_OFF,
  type ConditionGroup,
  type Drive,
  type Effect,
} from "@core/diagnosis/conditions";
import type { Vehicle } from "@core/record/types";
import { shortDate } from "~/store/format";
import { Button } from "~/ui/Button";
import { Choices } from "~/ui/Choice";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Hidden, Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

const List = styled.ul`
  display: grid;
  gap: 2px;
`;

const Line = styled.li`
  display: grid;
  grid-template-columns: minmax(88px, 130px) minmax(0, 1fr);
  gap: 4px 14px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
  &:first-child {
    border-top: 0;
  }
`;

/** A drive as a dot: filled where the lamp came on. */
const Dots = styled.span`
  display: inline-flex;
  flex-wrap: wrap;
  gap: 4px;
  vertical-align: middle;
  i {
    width: 14px;
    height: 14px;
    border: 2px solid var(--ink);
    border-radius: 50%;
  }
  i[data-on="yes"] {
    background: var(--ink);
  }
`;

const Sides = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
  small {
    color: var(--ink-soft);
  }
`;

const Groups = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 290px), 1fr));
  gap: 10px 18px;
`;

/** Of one condition: all drives with it, and those without. */
function Side({ name, on, of }: { name: string; on: number; of: number }) {
  return (
    <span>
      <small>{name} </small>
      <Dots aria-hidden>
        {Array.from({ length: Math.min(of, 24) }, (_, i) => (
          <i key={i} data-on={i < on ? "yes" : "no"} />
        ))}
      </Dots>
      <Hidden>
        came on in {on} of {of}
      </Hidden>
    </span>
  );
}

/** Under which conditions the lamp comes on, from all drives that were noted; and one more noted in a few taps. */
export function WhenItComes({ vehicle, jobs }: { vehicle: Vehicle; jobs: readonly { cameOn: Drive | null }[] }) {
  const drives = drivesOf(vehicle, jobs);
  const effects = effectsOf(drives);
  const fetcher = useFetcher<{ problem?: string } | null>();
  const [told, tell] = useState<string[]>([]);
  const busy = fetcher.state !== "idle";
  const note = (cameOn: boolean) => {
    void fetcher.submit(
      { intent: "drive", cameOn: cameOn ? "yes" : "no", conditions: told.join("|") },
      { method: "post" },
    );
    tell([]);
  };
  return (
    <Sheet id="drives" aria-label="When it comes on">
      <h2>When it comes on</h2>
      <p>{summary(effects, drives)}</p>
      {effects.length > 0 && (
        <>
          <List aria-label="By condition">
            {effects.map((e) => (
              <Line key={e.condition}>
                <strong>{e.condition}</strong>
                <Sides>
                  <Side name="with" {...e.with} />
                  <Side name="without" {...e.without} />
                </Sides>
              </Line>
            ))}
          </List>
          <Soft>Each dot is a drive; filled: the lamp came on.</Soft>
        </>
      )}
      <h3>Note a drive</h3>
      <Groups>
        {(Object.entries(CONDITIONS) as [ConditionGroup, readonly string[]][]).map(([group, options]) => (
          <Choices
            key={group}
            label={group}
            options={[...options]}
            value={told.filter((c) => options.includes(c))}
            onChange={(on) => {
              const before = told.filter((c) => options.includes(c));
              // Of one group one holds: the one that was ticked last.
              const fresh = on.filter((c) => !before.includes(c)).slice(-1);
              const kept = fresh.length && holdsAlone(group) ? fresh : on;
              tell([...told.filter((c) => !options.includes(c)), ...kept]);
            }}
          />
        ))}
      </Groups>
      <Row>
        <Button isDisabled={busy} onPress={() => note(true)}>
          The lamp came on
        </Button>
        <Button isDisabled={busy} onPress={() => note(false)}>
          A quiet drive
        </Button>
      </Row>
      <Trouble problem={fetcher.data?.problem} />
      <Noted
        vehicle={vehicle}
        onRemove={(at) => void fetcher.submit({ intent: "remove-drive", at }, { method: "post" })}
      />
    </Sheet>
  );
}

const SHOWN = 4;

function Noted({ vehicle, onRemove }: { vehicle: Vehicle; onRemove: (at: string) => void }) {
  const last = vehicle.drives.slice(-SHOWN).reverse();
  if (!last.length) return null;
  return (
    <List aria-label="Drives noted last">
      {last.map((d) => (
        <Row key={d.at} as="li" style={{ justifyContent: "space-between" }}>
          <span>
            {shortDate(d.at)}: {d.cameOn ? "came on" : "quiet"}
            {d.conditions.length > 0 && `, ${d.conditions.join(", ").toLowerCase()}`}
          </span>
          <ConfirmButton
            label="Remove"
            of={`the drive of ${shortDate(d.at)}`}
            question="Remove this drive?"
            sure="Remove it"
            onConfirm={() => onRemove(d.at)}
          />
        </Row>
      ))}
    </List>
  );
}

const counts = ({ with: w, without: o }: Effect): string =>
  `it came on in ${w.on} of ${w.of} such drives, and in ${o.on} of ${o.of} others`;

/** What the drives say, no surer than their number allows, and the drive that would tell most. */
function summary(effects: readonly Effect[], drives: readonly Drive[]): string {
  if (!drives.length) return "Nothing is noted yet. A few drives with and without the lamp show what sets it off.";
  const enough = effects.filter((e) => e.with.of >= FEW && e.without.of >= FEW);
  const [first] = enough;
  // The more conditions are looked at, the likelier it is that one of them stands out by chance (Bonferroni).
  const top = first && { ...first, p: 1 - (1 - first.p) * enough.length };
  const [next] = [...effects].sort((a, b) => b.next - a.next);
  const more = next && next.next > 0.01 ? ` A drive with this would tell most: ${next.condition.toLowerCase()}.` : "";
  if (!top || top.p < MAY_SET_IT_OFF) {
    const few = effects[0];
    return few && !top
      ? `Too few drives to tell: with "${few.condition.toLowerCase()}" ${counts(few)}.${more}`
      : `No condition stands out in ${drives.length} drives.${more}`;
  }
  const sure = `${Math.min(99, Math.round(100 * top.p))} %`;
  return top.p >= SETS_IT_OFF
    ? `It comes with "${top.condition.toLowerCase()}": ${counts(top)} (${sure} sure that it is no chance).${more}`
    : `"${top.condition}" may have to do with it: ${counts(top)} (${sure}).${more}`;
}
