import { useState } from "react";
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
  const place = (key: string, field: string) => `${key} ${field}`;
  const choose = (key: string, field: string): Side => sides.get(place(key, field)) ?? "here";
  const { vehicles } = plan;
  return (
    <section aria-label="What the file brings" style={{ display: "grid", gap: 10 }}>
      <h3>The file saved {shortTime(plan.savedAt)} brings</h3>
      {plan.intact === false && (
        <Caution>
          This file is not as Klinko saved it: something in it was changed or damaged since. What can&apos;t be read is
          left out; look at what the rest says.
        </Caution>
      )}
      <ul>
        {vehicles.map((v) => (
          <Line key={v.id}>
            <CheckBox
              isSelected={!left.has(v.id)}
              onChange={(on) => leave(on ? new Set([...left].filter((id) => id !== v.id)) : new Set([...left, v.id]))}
            >
              <span>
                <Mono>{v.plate}</Mono> {news(v)}
              </span>
            </CheckBox>
            {v.differences.length > 0 && !left.has(v.id) && (
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
                        value={choose(key, c.field)}
                        onChange={(side) => say(new Map(sides).set(place(key, c.field), side))}
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
        ))}
      </ul>
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
