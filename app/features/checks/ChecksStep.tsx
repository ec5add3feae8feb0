import { useState } from "react";
import { whyCheck } from "@core/diagnosis/reasons";
import { TOOLS, type Tool } from "@core/diagnosis/checks";
import { groupTitle } from "@core/diagnosis/words";
import { grouped, STANDS_OUT, type Group, type ProposedCheck, type Weighing } from "@core/diagnosis/weigh";
import { byNumber, listOf, lower } from "@core/wording";
import { suspectsAsked, type SuspectsAsked } from "@core/job/suspects";
import { lockOfStep } from "~/store/job-data";
import { jobPath } from "~/store/paths";
import { useDraft } from "~/store/use-draft";
import { useIntents, useJob } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Caution, Empty, Sheet, Soft, StepAction } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { CheckCard } from "./CheckCard";
import { DoneList } from "./DoneList";
import type { ChecksIntents } from "./intents";
import { OtherChecks } from "./OtherChecks";
import { percent } from "~/ui/percent";
import { RepairForm } from "./RepairForm";
import { SuspectList } from "./SuspectList";
import { Why } from "~/ui/Why";
import { useWeighing } from "~/store/use-weighing";

const isTools = (v: unknown): v is Tool[] =>
  Array.isArray(v) && v.every((x) => (TOOLS as readonly unknown[]).includes(x));
const USUAL: Tool[] = ["meter"];

/** What to look at, in the order that tells most for its time, until it is known what is to be mended. */
export function ChecksStep() {
  const data = useJob();
  const { job } = data;
  const lock = lockOfStep(data, "checks");
  const asked = suspectsAsked(data);
  if (lock)
    return (
      <Empty level={1} title={`Checks come ${lock}.`}>
        <p>What is stored says where to look first.</p>
        <LinkButton $look="primary" to={jobPath(job.id, "read")}>
          To the reading
        </LinkButton>
      </Empty>
    );
  return asked.codes.length ? <Checks asked={asked} /> : <NothingToCheck asked={asked} />;
}

/** No code to go by: told apart from a vehicle without faults. */
function NothingToCheck({ asked }: { asked: SuspectsAsked }) {
  const data = useJob();
  const { job } = data;
  const { send, busy, problem } = useIntents<ChecksIntents>("checks");
  const { mended, aside } = asked;
  const clear = !lockOfStep(data, "clear") && (
    <Button $look={mended.length ? "primary" : "secondary"} isDisabled={busy} onPress={() => send({ intent: "done" })}>
      On to the clear
    </Button>
  );
  return (
    <>
      <Empty level={1} title={nothingTitle(asked)}>
        <p>
          {mended.length
            ? "Clear it, run it as when it came, and read again: that shows whether it was that."
            : aside.length
              ? `${listOf(aside)}: read once more, so that you do not chase a miscount.`
              : "Suspects are weighed from codes. Without one, go by the story and the manual."}
        </p>
        {!mended.length && (
          <LinkButton $look="primary" to={jobPath(job.id, "read")}>
            Read once more
          </LinkButton>
        )}
      </Empty>
      {asked.licensed.length > 0 && <Licensed names={asked.licensed} />}
      <Trouble problem={problem} />
      <DoneList job={job} onTakeBack={(what, at) => send({ intent: "take-back", what, at })} />
      <RepairForm
        jobId={job.id}
        codes={[]}
        found={null}
        busy={busy}
        onRepair={(told) => send({ intent: "repair", ...told })}
      />
      {clear && <StepAction>{clear}</StepAction>}
    </>
  );
}

function nothingTitle({ mended, aside }: SuspectsAsked): string {
  if (mended.length) return `${listOf(mended)}: mended, as you noted.`;
  return aside.length ? "No code is sure enough to go by." : "There is no fault code to go by.";
}

const Licensed = ({ names }: { names: readonly string[] }) => (
  <Caution>{listOf(names)}: nothing is looked at or measured here. Leave the repair to licensed people.</Caution>
);

function Checks({ asked }: { asked: SuspectsAsked }) {
  const { job } = useJob();
  const { send, busy, problem } = useIntents<ChecksIntents>("checks");
  const [tools, setTools] = useDraft<Tool[]>("tools-at-hand", USUAL, isTools);
  const { weighed, stale, failed, again } = useWeighing(asked, { tools });
  const [chosen, choose] = useState<string | null>(null);
  /** The card has changed under the person: the focus goes to it. */
  const [moved, move] = useState(false);
  if (!weighed || failed)
    return (
      <>
        <h1>{failed ? "What can be wrong could not be weighed." : "Weighing what can be wrong …"}</h1>
        {failed && (
          <div>
            <Button $look="primary" onPress={again}>
              Try again
            </Button>
          </div>
        )}
      </>
    );
  const groups = grouped(weighed.suspects);
  const [top] = groups;
  const next = weighed.checks.find((c) => c.id === chosen) ?? weighed.checks[0];
  const shown = shownBad(job.checks, weighed, top);
  const codes = [...new Set(asked.codes.map((c) => c.code))];
  const card = next && (!shown || next.id === chosen);
  return (
    <>
      <h1>{headline(top, next, shown, asked)}</h1>
      <Soft>{asked.codes.map((c) => `${c.code} ${c.title}`).join(" · ")}</Soft>
      <LeftOut asked={asked} weighed={weighed} />
      {weighed.clash && <Clash clash={weighed.clash} checks={job.checks} />}
      <Trouble problem={problem} />
      {shown && top && (
        <Soft>
          {percent(top.p)}: a check showed it, and it fits {codes.length === 1 ? `code ${codes[0]}` : "the codes"}. Mend
          it, note it below, then clear and prove it.
        </Soft>
      )}
      {card && (
        <CheckCard
          check={next}
          fresh={moved}
          busy={busy || stale}
          why={whyCheck(next, confirms(next, top), next === weighed.checks[0])}
          onOutcome={(title, outcome) => {
            move(true);
            choose(null);
            send({ intent: "check", check: next.id, title, ...outcome });
          }}
        />
      )}
      {!next && !shown && (
        <Sheet>
          <p>
            All that can be done with these tools is done. Add a tool, look again where it was hard to see, or clear it
            and see what comes back first.
          </p>
        </Sheet>
      )}
      <OtherChecks
        checks={weighed.checks.filter((c) => !card || c !== next)}
        tools={tools}
        onTools={setTools}
        onChoose={(id) => {
          move(true);
          choose(id);
        }}
      />
      <SuspectList groups={groups} asked={asked} />
      <DoneList
        job={job}
        onTakeBack={(what, at) => {
          move(false);
          send({ intent: "take-back", what, at });
        }}
      />
      <RepairForm
        jobId={job.id}
        codes={codes}
        found={top && top.p >= 0.5 ? { what: lower(groupTitle(top)), cures: curesOf(top, asked) } : null}
        busy={busy}
        onRepair={(told) => send({ intent: "repair", ...told })}
      />
      <StepAction>
        {job.handOver ? (
          <Soft>Another workshop takes over: leave the codes stored for them.</Soft>
        ) : (
          <Button
            $look={job.repairs.some((r) => !r.withdrawnAt) ? "primary" : "secondary"}
            isDisabled={busy}
            onPress={() => send({ intent: "done" })}
          >
            On to the clear
          </Button>
        )}
        <LinkButton to={jobPath(job.id, "read")}>Read once more</LinkButton>
      </StepAction>
    </>
  );
}

/** What is not weighed, and why; what stands in where the make says nothing. */
function LeftOut({ asked, weighed }: { asked: SuspectsAsked; weighed: Weighing }) {
  return (
    <>
      {asked.generic && (
        <Soft>This make's file does not say what its circuits share, so what is usual on such vehicles stands in.</Soft>
      )}
      {weighed.leftOut.length > 0 && (
        <Soft>
          So many codes at once cannot all be weighed: {weighed.leftOut.length} are left out. Low voltage often sets a
          whole row.
        </Soft>
      )}
      {asked.licensed.length > 0 && <Licensed names={asked.licensed} />}
      {asked.first.map((text) => (
        <Caution key={text}>{text}</Caution>
      ))}
      {asked.distrusted.length > 0 && <Soft>Not weighed until then: {listOf(asked.distrusted)}.</Soft>}
      {asked.codes.map(
        ({ key, code, details }) =>
          details && (
            <Why
              key={key}
              label={`${code} stands for several faults: what tells them apart`}
              lines={details.map((d) => `${d.title}: ${d.tell}`)}
            />
          ),
      )}
      {asked.mended.length > 0 && (
        <Soft>Mended, as you noted, and not weighed until it is cleared and read again: {listOf(asked.mended)}.</Soft>
      )}
      {asked.aside.length > 0 && (
        <Soft>
          Left out, since{" "}
          {asked.aside.length === 1
            ? "it was not read surely or stands in no table"
            : "they were not read surely or stand in no table"}
          : {listOf(asked.aside)}.
        </Soft>
      )}
    </>
  );
}

const curesOf = (g: Group, { codes }: SuspectsAsked): string[] => {
  const explained = new Set(g.suspects.flatMap((s) => s.explains));
  return [...new Set(codes.filter((c) => explained.has(c.key)).map((c) => c.code))].sort(byNumber);
};

const confirms = (c: ProposedCheck, top: Group | undefined): boolean =>
  top !== undefined && top.p >= STANDS_OUT && c.bad >= 0.6;

/** Did a check that was done show what stands on top? Only then is it more than a sum of chances. */
function shownBad(
  done: readonly { check: string; outcome: string; withdrawnAt?: string | undefined }[],
  { tested }: Weighing,
  top?: Group,
): boolean {
  if (!top || top.p < STANDS_OUT) return false;
  return done.some(
    (d) => d.outcome === "bad" && !d.withdrawnAt && top.suspects.some((s) => tested[d.check]?.includes(s.id)),
  );
}

/** From here on the likeliest is named before the next check is. */
const NAMED = 0.5;

function headline(
  top: Group | undefined,
  next: ProposedCheck | undefined,
  shown: boolean,
  asked: SuspectsAsked,
): string {
  const codes = [...new Set(asked.codes.map((c) => c.code))];
  if (shown && top) return `Most likely found: ${lower(groupTitle(top))}.`;
  if (top && top.p >= STANDS_OUT) return `One thing stands out: ${lower(groupTitle(top))}.`;
  if (!next) return "Nothing more can be checked with these tools.";
  // What the check is not about would only puzzle beside it.
  if (top && top.p >= NAMED && next.circuit?.id === top.suspects[0].circuit?.id) {
    const of = curesOf(top, asked);
    const what = of.length === codes.length ? "It points" : `${listOf(of)} ${of.length === 1 ? "points" : "point"}`;
    return `${what} to this: ${lower(groupTitle(top))}.`;
  }
  return `What set ${listOf(codes)}? Look here first.`;
}

function Clash({ clash, checks }: { clash: [string, string]; checks: readonly { check: string; title: string }[] }) {
  const [a, b] = clash.map((id) => checks.findLast((c) => c.check === id)?.title ?? id);
  return (
    <Caution>
      These two hardly go together: "{a}" and "{b}". One of them is most likely not as noted: take that one back, and do
      it once more.
    </Caution>
  );
}
