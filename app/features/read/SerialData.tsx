import { lazy, Suspense, useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { entriesFor } from "@core/pack/scope";
import type { Parameter, SerialData as Tells } from "@core/pack/way";
import { runToAsk, wasCleared } from "@core/job/epochs";
import type { Reading } from "@core/record/types";
import { codesFrom, COMMANDS, readReply, request, valuesOf, type Command } from "@core/serial/protocol";
import { clock } from "~/store/clock";
import { hasStandIn } from "@packs/demo-faults";
import type { JobData } from "~/store/job-data";
import { hasSerialPorts, openPort, simulatedLine, type SerialLine } from "~/store/serial-line";
import { useSettings } from "~/store/use-settings";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Caution, Mono, Row, Sheet, Soft } from "~/ui/bits";
import { figures } from "~/ui/theme";
import { sayLists, useRecordLists } from "./record-lists";
import { RunChoice } from "./RunChoice";

const LiveChart = lazy(() => import("./LiveChart"));

const Grid = styled.div`
  display: grid;
  gap: 8px;
  grid-template-columns: repeat(auto-fill, minmax(min(46%, 170px), 1fr));
`;

const Value = styled(Button)`
  flex-direction: column;
  align-items: flex-start;
  gap: 2px;
  padding: 10px 14px;
  white-space: normal;
  text-align: left;
  color: var(--ink);
  border-color: var(--line);
  strong {
    ${figures}
    font-size: 1.35rem;
  }
  small {
    font-weight: 400;
    color: var(--ink-soft);
  }
  &[aria-pressed="true"] {
    border-color: var(--petrol);
    background: var(--tint);
  }
`;

/** So many samples are kept for the graph: ten minutes of one a second. */
const KEPT = 600;
const DECIMALS: Record<Parameter["unit"], number> = { "1/min": 0, kPa: 0, V: 2, "°C": 0, "%": 0, "km/h": 0 };

interface Sample {
  t: number;
  values: Record<string, number>;
}

const WRONG = {
  silence: "The unit is silent. Key on? Then the leads: TX and RX exchanged, ground, green cap's cavities.",
  gibberish: "The reply is garbled: choose the other protocol.",
};

/** A unit on a serial line: it is connected to, asked one thing at a time, and sampled as long as it is connected. */
function useUnit(tells: Tells, protocol: number) {
  const [line, setLine] = useState<SerialLine | null>(null);
  const [problem, setProblem] = useState("");
  const [samples, setSamples] = useState<Sample[]>([]);
  const [codes, setCodes] = useState<string[] | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const began = useRef(0);
  /** One question at a time on the line. */
  const ask = (on: SerialLine, command: Command) => {
    const answer = queue.current.then(async () => readReply(await on.ask(request(command, protocol)), command));
    queue.current = answer.catch(() => undefined);
    return answer;
  };
  const connect = async (open: () => Promise<SerialLine>) => {
    setProblem("");
    try {
      const on = await open();
      const hello = await ask(on, COMMANDS.hello);
      if ("wrong" in hello) {
        await on.close();
        return setProblem(WRONG[hello.wrong]);
      }
      began.current = clock.ticks();
      setSamples([]);
      setLine(on);
    } catch (e) {
      setProblem(`The port did not open: ${(e as Error).message}. Is another program using it?`);
    }
  };
  useEffect(() => {
    if (!line) return;
    const sample = async () => {
      const got = await ask(line, COMMANDS.block);
      if ("wrong" in got) return setProblem(WRONG[got.wrong]);
      setProblem("");
      const t = (clock.ticks() - began.current) / 1000;
      setSamples((s) => [...s.slice(1 - KEPT), { t, values: valuesOf(tells.parameters, got.payload) }]);
    };
    void sample();
    const stop = clock.every(tells.sampleSeconds * 1000, () => void sample());
    return () => {
      stop();
      void line.close();
    };
    // The line is made for the protocol; the rest does not change under it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [line]);
  const readCodes = async () => {
    const got = await ask(line!, COMMANDS.codes);
    if ("wrong" in got) return setProblem(WRONG[got.wrong]);
    setCodes(codesFrom(got.payload));
  };
  return { connected: line !== null, problem, samples, codes, connect, readCodes, disconnect: () => setLine(null) };
}

/** Serial live data: choose the protocol, connect, watch the values, read the codes. */
export function SerialData({ data, tells }: { data: JobData; tells: Tells }) {
  const { vehicle, pack, access } = data;
  const usual = tells.protocols.findIndex((p) => vehicle.year >= p.years[0] && vehicle.year <= p.years[1]);
  const [protocol, setProtocol] = useState(Math.max(0, usual));
  const [run, setRun] = useState<Reading["run"]>(() => runToAsk(data, access.system));
  const { connected, problem, samples, codes, connect, readCodes, disconnect } = useUnit(tells, protocol);
  const record = useRecordLists(data);
  const keep = (read: string[]) => {
    const lists = {
      [access.system]: { state: read.length ? ("codes" as const) : ("none" as const), codes: read, unclear: [] },
    };
    disconnect();
    void record({ input: "serial", run, lists, says: sayLists(lists, () => access.name) });
  };
  const entries = entriesFor(pack, vehicle, access.system);
  return (
    <>
      <h1 aria-live="polite">
        {!connected
          ? "Lead in, key on: connect to the unit."
          : codes
            ? codes.length
              ? `${codes.length === 1 ? "One code" : `${codes.length} codes`}: ${codes.join(", ")}.`
              : "Nothing is stored."
            : "The unit answers. Look at the values, read the codes."}
      </h1>
      {wasCleared(data, access.memory) && <RunChoice value={run} onChange={setRun} />}
      {problem && <Caution>{problem}</Caution>}
      {!connected ? (
        <Connect data={data} tells={tells} protocol={protocol} setProtocol={setProtocol} connect={connect} />
      ) : (
        <>
          <Values tells={tells} samples={samples} />
          {codes && codes.length > 0 && (
            <Sheet>
              <h2>Stored</h2>
              <ul>
                {codes.map((c) => (
                  <li key={c}>
                    <Mono>{c}</Mono> {entries.find((e) => e.code === c)?.title ?? "in no table of this vehicle"}
                  </li>
                ))}
              </ul>
            </Sheet>
          )}
          <Row>
            <Button $look={codes ? "secondary" : "primary"} onPress={() => void readCodes()}>
              Read the codes
            </Button>
            <Button $look={codes ? "primary" : "secondary"} isDisabled={!codes} onPress={() => codes && keep(codes)}>
              Record this reading
            </Button>
            <Button $look="quiet" onPress={disconnect}>
              Disconnect
            </Button>
          </Row>
        </>
      )}
    </>
  );
}

function Connect({
  data: { vehicle, pack },
  tells,
  protocol,
  setProtocol,
  connect,
}: {
  data: JobData;
  tells: Tells;
  protocol: number;
  setProtocol: (protocol: number) => void;
  connect: (open: () => Promise<SerialLine>) => Promise<void>;
}) {
  return (
    <Sheet>
      <Choice
        label="Protocol of the unit"
        value={tells.protocols[protocol].id}
        onChange={(id) => setProtocol(tells.protocols.findIndex((p) => p.id === id))}
        options={tells.protocols.map((p) => ({ value: p.id, label: `${p.title} (${p.years.join(" to ")})` }))}
      />
      <Row>
        {hasStandIn(vehicle.id) && (
          <Button $look="primary" onPress={() => void connect(() => Promise.resolve(simulatedLine(pack, vehicle)))}>
            Connect to the simulated unit
          </Button>
        )}
        <Button
          isDisabled={!hasSerialPorts()}
          onPress={() => void connect(() => openPort(tells.protocols[protocol].baud))}
        >
          Connect to a serial port
        </Button>
      </Row>
      {!hasSerialPorts() && <Soft>This browser can't open serial ports: use one that can, on a laptop.</Soft>}
    </Sheet>
  );
}

/** What the unit measures, as numbers; the one that is picked as a line. */
function Values({ tells, samples }: { tells: Tells; samples: readonly Sample[] }) {
  const [shown, setShown] = useState(tells.parameters[0].id);
  const now = samples.at(-1)?.values;
  const settings = useSettings();
  const unitOf = (unit: Parameter["unit"]) =>
    unit === "°C" ? settings.temperature : unit === "km/h" ? settings.speed : unit;
  const shownAs = (v: number, unit: Parameter["unit"]) =>
    unit === "°C" && settings.temperature === "°F"
      ? v * 1.8 + 32
      : unit === "km/h" && settings.speed === "mph"
        ? v / 1.609344
        : v;
  const picked = tells.parameters.find((p) => p.id === shown) ?? tells.parameters[0];
  return (
    <>
      <Grid role="group" aria-label="Values">
        {tells.parameters.map((p) => {
          const v = now?.[p.id];
          const odd = v !== undefined && (v < p.idle[0] || v > p.idle[1]);
          return (
            <Value key={p.id} aria-pressed={shown === p.id} onPress={() => setShown(p.id)}>
              <small>{p.name}</small>
              <strong>
                {v === undefined ? "–" : shownAs(v, p.unit).toFixed(DECIMALS[p.unit])} {unitOf(p.unit)}
              </strong>
              <small>
                {odd ? "outside " : "idle, warm: "}
                {p.idle.map((x) => Number(shownAs(x, p.unit).toFixed(DECIMALS[p.unit]))).join(" to ")}
              </small>
            </Value>
          );
        })}
      </Grid>
      <Sheet>
        <h2>{picked.name}</h2>
        {samples.length > 1 ? (
          <Suspense fallback={<Soft>The graph is loaded …</Soft>}>
            <LiveChart
              name={picked.name}
              unit={unitOf(picked.unit)}
              points={samples.map((s) => ({ t: s.t, v: shownAs(s.values[picked.id], picked.unit) }))}
            />
          </Suspense>
        ) : (
          <Soft>The graph begins with the second sample.</Soft>
        )}
      </Sheet>
    </>
  );
}
