import { ClipboardCheck, Timer } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Form } from "react-aria-components/Form";
import styled from "styled-components";
import {
  bandText,
  goodAt,
  readMeasured,
  readTemperature,
  UNITS,
  verdictOn,
  type Verdict,
} from "@core/diagnosis/measure";
import { checkWords } from "@core/diagnosis/words";
import type { ProposedCheck } from "@core/diagnosis/weigh";
import type { Limit } from "@core/pack/circuit";
import { clock } from "~/store/clock";
import { useSettings } from "~/store/use-settings";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { middle } from "~/ui/theme";
import { ProbeFigure } from "./ProbeFigure";
import { TOOL_ICONS, TOOL_WORDS } from "./tools";

const Card = styled(Sheet)`
  border-left: 8px solid var(--petrol);
  h2 {
    font-size: 1.35rem;
  }
`;

const Body = styled.div`
  display: grid;
  gap: 14px;
  ${middle} {
    &:has(figure) {
      grid-template-columns: minmax(0, 1fr) minmax(220px, 320px);
    }
  }
  ul {
    display: grid;
    gap: 6px;
  }
`;

const Fact = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  color: var(--ink-soft);
`;

/** How a check came out. */
export interface Outcome {
  outcome: "good" | "bad";
  measured?: string;
}

/** Within so long after a check came up nobody has read it. */
const SECOND_TAP_MS = 500;

/** One check: how it is done, and how it came out. */
export function CheckCard({
  check,
  why,
  busy,
  fresh,
  onOutcome,
}: {
  check: ProposedCheck;
  why: string;
  busy: boolean;
  /** It has just taken the place of another one: the focus goes to it. */
  fresh: boolean;
  onOutcome: (title: string, outcome: Outcome) => void;
}) {
  const words = checkWords(check);
  const title = useRef<HTMLHeadingElement>(null);
  /** A second tap that was meant for the check before says nothing of this one. */
  const since = useRef(0);
  useEffect(() => {
    since.current = fresh ? clock.ticks() : -SECOND_TAP_MS;
    if (fresh) title.current?.focus();
  }, [fresh, check.id]);
  const say = (outcome: Outcome) => {
    if (clock.ticks() - since.current >= SECOND_TAP_MS) onOutcome(words.title, outcome);
  };
  const Icon = check.tool ? TOOL_ICONS[check.tool] : ClipboardCheck;
  return (
    <Card aria-label={words.title} aria-busy={busy}>
      <h2 ref={title} tabIndex={-1}>
        {words.title}
      </h2>
      <Row $gap={18}>
        <Fact>
          <Timer size={20} aria-hidden /> {check.minutes} min
        </Fact>
        <Fact>
          <Icon size={20} aria-hidden /> {check.tool ? TOOL_WORDS[check.tool] : "eyes and hands"}
        </Fact>
      </Row>
      {words.caution && <Caution>{words.caution}</Caution>}
      <Body>
        <ul>
          {words.how.map((h) => (
            <li key={h}>{h}</li>
          ))}
        </ul>
        <ProbeFigure check={check} />
      </Body>
      {check.limit && (
        <MeasureForm key={check.id} limit={check.limit} busy={busy} onVerdict={(o) => onOutcome(words.title, o)} />
      )}
      <Row>
        <Button isDisabled={busy} onPress={() => say({ outcome: "good" })}>
          {words.good}
        </Button>
        <Button isDisabled={busy} onPress={() => say({ outcome: "bad" })}>
          {words.bad}
        </Button>
      </Row>
      <Soft>{why}</Soft>
    </Card>
  );
}

/** A value off the meter, held against its limit; nothing is noted before the verdict was seen. */
function MeasureForm({ limit, busy, onVerdict }: { limit: Limit; busy: boolean; onVerdict: (o: Outcome) => void }) {
  const { temperature } = useSettings();
  const units = Object.keys(UNITS[limit.unit]);
  const top = limit.good?.[1] ?? limit.curve?.[Math.floor(limit.curve.length / 2)]!.good[1] ?? 0;
  const [unit, setUnit] = useState(limit.unit === "ohm" && top >= 1000 ? "kΩ" : units[0]);
  const [typed, setTyped] = useState("");
  const [warm, setWarm] = useState("");
  const [fault, setFault] = useState<{ value?: string; warm?: string }>({});
  const [verdict, setVerdict] = useState<Verdict | null>(null);
  const change = (set: (v: string) => void) => (v: string) => {
    set(v);
    setFault({});
    setVerdict(null);
  };
  const judge = () => {
    const value = readMeasured(typed, limit.unit, unit);
    const celsius = limit.curve ? readTemperature(warm, temperature) : { value: null };
    if ("fault" in value || "fault" in celsius)
      return setFault({
        ...("fault" in value && { value: value.fault }),
        ...("fault" in celsius && { warm: celsius.fault }),
      });
    const good = goodAt(limit, celsius.value);
    if (!good) {
      const at = limit.curve!;
      return setFault({
        warm: `The figures go from ${degrees(at[0].celsius, temperature)} to ${degrees(at.at(-1)!.celsius, temperature)}: measure it in between`,
      });
    }
    setVerdict(verdictOn(value.value, good, limit.unit));
  };
  return (
    <Form
      onSubmit={(e) => {
        e.preventDefault();
        judge();
      }}
      style={{ display: "grid", gap: 14 }}
    >
      <Row $gap={14} style={{ alignItems: "flex-start" }}>
        <Field
          label="The meter shows"
          description={limit.good ? `Good: ${bandText(limit.good, limit.unit)}` : "OL or open where it shows no figure"}
          value={typed}
          onChange={change(setTyped)}
          error={fault.value}
          inputMode="decimal"
          maxLength={20}
          autoComplete="off"
          style={{ flex: "1 1 150px", maxWidth: 240 }}
        />
        {units.length > 1 && (
          <Choice
            label="Unit"
            value={unit}
            onChange={change(setUnit)}
            options={units.map((u) => ({ value: u, label: u }))}
          />
        )}
        {limit.curve && (
          <Field
            label={`Part is at, ${temperature}`}
            description="Cold: as warm as the air"
            value={warm}
            onChange={change(setWarm)}
            error={fault.warm}
            inputMode="text"
            maxLength={8}
            autoComplete="off"
            style={{ flex: "1 1 130px", maxWidth: 200 }}
          />
        )}
      </Row>
      {verdict ? (
        <div role="status" style={{ display: "grid", gap: 10 }}>
          <p>
            <strong>{verdict.says}</strong>
            {verdict.close && " So near the limit, measure once more, with the pins cleaned."}
          </p>
          <Row>
            <Button
              $look="primary"
              isDisabled={busy}
              onPress={() => onVerdict({ outcome: verdict.bad ? "bad" : "good", measured: verdict.says })}
            >
              Note it: {verdict.bad ? "bad" : "good"}
            </Button>
          </Row>
        </div>
      ) : (
        <Row>
          <Button $look="primary" type="submit">
            Is it good?
          </Button>
          <Soft>Or say it without a figure:</Soft>
        </Row>
      )}
    </Form>
  );
}

const degrees = (celsius: number, unit: "°C" | "°F"): string =>
  `${Math.round(unit === "°F" ? celsius * 1.8 + 32 : celsius)} ${unit}`;
