import { meaningsOf, type Meaning } from "@core/pack/lookup";
import type { Sure } from "@core/flash/judge/sureness";
import { drivable } from "@core/job/drivable";
import { codeKind, type CodeKind } from "@core/job/faults";
import type { Known } from "@core/job/known";
import { listOf, lower, settles, why } from "@core/job/say";
import { atLeast, atMost } from "@core/job/told";
import type { System } from "@core/pack/pack";
import { noteKey } from "@core/record/code-notes";
import { shortTime } from "~/store/format";
import { ownOf } from "~/store/job-data";
import { useIntents, useJob } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Caution, Empty, Sheet, Soft, StepAction } from "~/ui/bits";
import { KeptFilms } from "~/ui/KeptFilms";
import { SystemChoice } from "~/ui/SystemChoice";
import { Why } from "~/ui/Why";
import type { JobIntents } from "~/store/job-intents";
import type { MeaningIntents } from "./intents";
import { CodeMeaning } from "./CodeMeaning";
import { DriveSays } from "./DriveSays";
import { jobPath } from "~/store/paths";
import { Trouble } from "~/ui/Trouble";

/** What was read, on this vehicle: circuits, what sets them, where to look first. */
export function MeaningStep() {
  const data = useJob();
  const { job, vehicle, pack, readings, systems, access, judged } = data;
  const { send, busy, problem } = useIntents<MeaningIntents>("meaning");
  const whole = useIntents<JobIntents>(null);
  const { known } = ownOf(data);
  const watch = readings.findLast((r) => r.system === access.system && r.readiness && r.recordedAt && !r.withdrawnAt);
  const last = known.last?.reading ?? watch ?? null;
  const codes = [...new Set(known.codes.map((x) => x.code))];
  const sureOf = (code: string): Sure =>
    known.codes.filter((x) => x.code === code).reduce<Sure>((s, x) => atMost(s, x.sure), "certain");
  const meanings = meaningsOf(pack, vehicle, access.system, access.dialect, codes);
  const of = (kind: CodeKind) => meanings.filter((m) => codeKind(data, access.system, m.code) === kind);
  const [faults, expected, status] = [of("fault"), of("expected"), of("status")];
  const shared = sharedCircuits(faults);
  const advice = faults.length > 0 ? drivable(data, judged.systems) : null;
  const nameOf = (system: string) => systems.find((s) => s.system === system)?.name ?? system;
  const doubts = [...new Set(known.doubts.map((d) => settles(d, nameOf)))];
  const reasons = judged.statements.filter(
    (s) => s.system === access.system && ["stored", "nothing-stored", "list-whole"].includes(s.kind),
  );
  const cards = (list: Meaning[]) =>
    list.map((m) => (
      <CodeMeaning
        key={m.code}
        meaning={m}
        vehicle={vehicle}
        sure={sureOf(m.code)}
        about={access.about}
        where={known.codes.filter((x) => x.code === m.code).map((x) => x.memory)}
        own={noteKey(pack.id, access.memory, m.code)}
        note={data.notes[noteKey(pack.id, access.memory, m.code)]}
      />
    ));
  const clearNext =
    faults.length > 0 && !faults.some((m) => m.entry?.first || m.entry?.caution) && !access.about.caution;
  return (
    <>
      <h1>
        {watch && !known.last ? READINESS[watch.readiness!] : headline(known, faults, expected, status, access.about)}
      </h1>
      <SystemChoice
        systems={systems}
        value={access.system}
        onChange={(system) => whole.send({ intent: "system", system })}
      />
      {!last ? (
        <Empty title={`No reading of the ${lower(access.name)} is recorded yet.`}>
          <LinkButton $look="primary" to={jobPath(job.id, "read")}>
            To the reading
          </LinkButton>
        </Empty>
      ) : (
        <Soft>
          Read {shortTime(last.startedAt)}, {pack.title}, for {vehicle.year}, engine {vehicle.engine}.
          {faults.length > 0 &&
            !access.about.caution &&
            " A code names a circuit, not a part to buy: look at the plug first."}
          {pack.own && ` ${pack.source}`}
          {(last.revision ?? pack.revision) !== pack.revision &&
            " The make was changed since: what stands here is by its table of today."}
        </Soft>
      )}
      {access.about.caution && last && <Caution>{access.about.caution}</Caution>}
      {known.disagree && (
        <Caution>Two readings do not agree. Read once more before anything is wiped or bought.</Caution>
      )}
      {known.last && (
        <Why
          key={known.last.reading.id}
          label={doubts.length ? "Why not surer, and what settles it" : "Why?"}
          lines={doubts.length ? doubts : [...new Set(reasons.flatMap((s) => why(s, data, shortTime)))]}
          open={doubts.length > 0 && known.answer !== "codes"}
        />
      )}
      {last?.input === "camera" && <KeptFilms key={last.id} reading={last.id} />}
      {watch?.readiness === "not-complete" && (
        <Sheet>
          <h2>What completes the monitors</h2>
          <p>{pack.proving.drive}</p>
          <Soft>{pack.proving.readiness}</Soft>
        </Sheet>
      )}
      {advice && <DriveSays advice={advice} />}
      {shared.map((s) => (
        <Sheet key={s.circuit}>
          <p>
            <strong>
              {s.codes.join(" and ")} name the same circuit: {s.circuit}.
            </strong>{" "}
            One cause may explain both.
          </p>
        </Sheet>
      ))}
      {cards(faults)}
      {expected.length > 0 && <h2>Expected on this vehicle, no fault to chase</h2>}
      {cards(expected)}
      {status.length > 0 && <h2>Status, no fault</h2>}
      {cards(status)}
      <Trouble problem={problem ?? whole.problem} />
      {last && <Onward primary={clearNext} busy={busy} onMeaning={() => send({ intent: "meaning" })} />}
    </>
  );
}

const READINESS = {
  complete: "Ready, as the lamp showed it.",
  "not-complete": "Not ready: the monitors are not complete.",
  unclear: "Readiness was not clear: watch the lamp once more.",
};

function headline(known: Known, faults: Meaning[], expected: Meaning[], status: Meaning[], about: System): string {
  switch (known.answer) {
    case "not-read":
      return "Nothing is read yet.";
    case "unclear":
      return "No code could be read.";
    case "no-answer":
      return "The unit did not answer: nothing is known of its codes.";
    case "other-unit":
      return `Another unit answered${known.last?.other ? `: ${lower(known.last.other.name)}` : ""}. Nothing is known of this one.`;
    case "none":
      if (known.none === "certain") return "Nothing is stored.";
      return known.none === "likely"
        ? "Most likely nothing is stored."
        : "It looks like nothing stored, and that is not proven.";
    case "codes": {
      const names = listOf([...new Set(known.codes.map((x) => x.code))]);
      if (known.codes.every((x) => x.sure === "unsure"))
        return `${names}, and not sure: read once more before anything is done.`;
      const first = faults.find((m) => m.entry?.first);
      if (first) return `${first.code} comes first, whatever else is stored.`;
      if (!faults.length) {
        const only = expected.length
          ? `Only what is expected on this vehicle${status.length ? ", and status codes" : ""}`
          : "Only status codes";
        return atLeast(known.whole, "likely") ? `${only}, no fault.` : `${only} so far: the list was not seen whole.`;
      }
      const unknown = faults.filter((m) => !m.entry);
      if (unknown.length === faults.length)
        return `${unknown.map((m) => m.code).join(", ")} ${unknown.length === 1 ? "is" : "are"} in no table of this vehicle.`;
      const n = faults.length === 1 ? "One fault" : `${faults.length} faults`;
      if (about.caution) return `${n}. Leave the repair to licensed people.`;
      return faults.some((m) => m.entry?.caution) ? `${n}. Read the caution first.` : `${n}. Look at the plugs first.`;
    }
  }
}

function sharedCircuits(faults: Meaning[]): { circuit: string; codes: string[] }[] {
  const by = new Map<string, string[]>();
  for (const m of faults) if (m.entry) by.set(m.entry.circuit, [...(by.get(m.entry.circuit) ?? []), m.code]);
  return [...by].filter(([, codes]) => codes.length > 1).map(([circuit, codes]) => ({ circuit, codes }));
}

function Onward({ primary, busy, onMeaning }: { primary: boolean; busy: boolean; onMeaning: () => void }) {
  const data = useJob();
  const { job } = data;
  const { known } = ownOf(data);
  return (
    <StepAction>
      {job.handOver ? (
        <Soft>Another workshop takes over: leave the codes stored for them.</Soft>
      ) : known.answer !== "codes" ? null : (
        <Button $look={primary ? "primary" : "secondary"} isDisabled={busy} onPress={onMeaning}>
          On to the checks
        </Button>
      )}
      <LinkButton
        $look={known.answer === "codes" || known.none === "certain" ? "secondary" : "primary"}
        to={jobPath(job.id, "read")}
      >
        Read once more
      </LinkButton>
    </StepAction>
  );
}
