import { useState } from "react";
import { lampNamed } from "@core/pack/lamp-name";
import { lower } from "@core/job/say";
import { Disclosure, DisclosurePanel } from "react-aria-components/Disclosure";
import styled from "styled-components";
import { hasLamp, lampCheckOf, verdictOn } from "@core/job/lamp-check";
import type { LampSeen } from "@core/procedure/lamp-check";
import type { OutputSeen, UnitSeen } from "@core/procedure/unit-check";
import type { System } from "@core/pack/pack";
import { unitsOf, type SystemAccess } from "@core/pack/scope";
import { lockOfStep } from "~/store/job-data";
import { useIntents, useJob } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Row, Sheet, Soft } from "~/ui/bits";
import { LampGlyph } from "~/ui/LampGlyph";
import { SimulatedLink } from "~/ui/SimulatedLink";
import { CompareVehicles } from "./CompareVehicles";
import { OutputChecks } from "./OutputChecks";
import { Trouble } from "~/ui/Trouble";
import type { LampCheckIntents } from "./intents";
import { jobPath } from "~/store/paths";

const Tiles = styled.div`
  display: grid;
  gap: 12px;
  grid-template-columns: repeat(auto-fit, minmax(min(45%, 170px), 1fr));
`;

const Tile = styled(Button)`
  flex-direction: column;
  padding: 18px 10px;
  color: var(--ink);
  border-color: var(--line);
  &[aria-pressed="true"] {
    border-color: var(--petrol);
    background: var(--tint);
  }
  small {
    font-weight: 400;
    color: var(--ink-soft);
  }
`;

const Verdict = styled(Sheet)<{ $pass: boolean }>`
  border-left: 8px solid var(${({ $pass }) => ($pass ? "--done" : "--danger")});
  ol {
    list-style: decimal;
    padding-left: 1.3em;
    display: grid;
    gap: 8px;
  }
`;

const SEEN: readonly { value: LampSeen; label: string; text: string }[] = [
  { value: "steady", label: "Stays lit", text: "without a break" },
  { value: "dark", label: "Stays dark", text: "never lights" },
  { value: "flashing", label: "Flashes", text: "with no wire in" },
  { value: "goes-out", label: "Goes out", text: "after some seconds" },
];

const NOTHING: UnitSeen = { lamp: null, outputs: {} };

/** What the lamps and the other outputs do with the key on, and what that says of each unit. */
export function LampCheckStep() {
  const data = useJob();
  const { job, vehicle, systems, access } = data;
  const { send, problem } = useIntents<LampCheckIntents>("lamp-check");
  const check = job.lampCheck;
  // One lamp and one unit are looked at once, even where they are asked in two ways.
  const units = unitsOf(systems);
  const main = units.find((s) => s.unit === access.unit) ?? units[0];
  // What was told stands here at once: the next answer must not wait for the last one to be stored.
  const [told, setTold] = useState<Record<string, UnitSeen>>(check?.units ?? {});
  const seenOf = (s: SystemAccess): UnitSeen => {
    if (Object.hasOwn(told, s.system)) return told[s.system];
    return s === main && check ? { lamp: check.seen, outputs: {} } : NOTHING;
  };
  const all = () => Object.fromEntries(units.map((x) => [x.system, seenOf(x)]));
  const verdictOf = (s: SystemAccess) => verdictOn(s, units, all());
  const tell = (s: SystemAccess, seen: UnitSeen) => {
    const next = { ...all(), [s.system]: seen };
    setTold(next);
    const told = lampCheckOf(main, units, next);
    if (told) send({ intent: "lamp-check", seen: told.seen, others: told.others, units: next, headline: told.says });
  };
  // Where the lamp goes out by design, or the codes come another way, the person goes on and knows why it is doubtful.
  const passes = check !== null && lockOfStep(data, "hook-up") === null;
  const doubtful = passes && check.seen !== "steady";
  const rest = units.filter((s) => s !== main);
  // Others tell what a dead unit shares with them.
  const [more, setMore] = useState(rest.some((s) => check?.units?.[s.system]?.lamp));
  const unitOf = (s: SystemAccess) => (
    <OneUnit
      key={s.system}
      s={s}
      title={s !== main}
      shut={s === main && !passes}
      seen={seenOf(s)}
      verdict={hasLamp(s) ? verdictOf(s) : null}
      tell={(seen) => tell(s, seen)}
    />
  );
  return (
    <>
      <h1>
        {hasLamp(main)
          ? "Key on, engine off, no wire in. What does the lamp do?"
          : "Key on, engine off. Does the unit do anything?"}
      </h1>
      {unitOf(main)}
      {rest.length > 0 && (
        <Disclosure isExpanded={more} onExpandedChange={setMore}>
          <Button slot="trigger" $look="quiet">
            {more ? "Hide" : "Check"} the other units: {rest.map((s) => lower(s.name)).join(", ")}
          </Button>
          <DisclosurePanel>
            <div style={{ display: "grid", gap: 20, paddingTop: 12 }}>{rest.map(unitOf)}</div>
          </DisclosurePanel>
        </Disclosure>
      )}
      {passes && !doubtful && !hasLamp(main) && (
        <Verdict $pass aria-live="polite">
          <h2>The {main.unit} answers.</h2>
          <p>Most likely it is alive: it can be asked for its codes.</p>
        </Verdict>
      )}
      {!hasLamp(main) && check?.seen === "dark" && (
        <Verdict $pass={false} aria-live="polite">
          <h2>Nothing of the {main.unit} answers.</h2>
          <p>
            Power and ground first: {main.about.feed ?? "its fuse"}, {main.about.ground ?? "its ground"}. Then tell what
            works.
          </p>
        </Verdict>
      )}
      {passes && (
        <Row>
          <LinkButton $look={doubtful ? "secondary" : "primary"} to={jobPath(job.id, "hook-up")}>
            {doubtful ? "Go on to the hook-up all the same" : "On to the hook-up"}
          </LinkButton>
        </Row>
      )}
      <Trouble problem={problem} />
      <SimulatedLink vehicle={vehicle} />
    </>
  );
}

/** One unit: its lamp, what else it drives, power and ground, and what these say of it. */
function OneUnit({
  s,
  title,
  shut,
  seen,
  verdict,
  tell,
}: {
  s: SystemAccess;
  title: boolean;
  /** The way to the codes stays closed as long as its lamp is not steady. */
  shut: boolean;
  seen: UnitSeen;
  verdict: ReturnType<typeof verdictOn>;
  tell: (seen: UnitSeen) => void;
}) {
  const suspect = verdict && ["feed", "ground", "power-or-ground", "unit"].includes(verdict.suspect);
  return (
    <section aria-label={s.name} style={{ display: "grid", gap: 12 }}>
      {title && <h2>{s.name}</h2>}
      {hasLamp(s) ? (
        <>
          <Soft>
            Watch the lamp marked <strong>{s.about.lamp}</strong>. Give it ten seconds.
          </Soft>
          <Tiles role="group" aria-label={`What the ${lampNamed(s.about.lamp)} does`}>
            {SEEN.map((x) => (
              <Tile key={x.value} aria-pressed={seen.lamp === x.value} onPress={() => tell({ ...seen, lamp: x.value })}>
                <LampGlyph look={x.value} />
                {x.label}
                <small>{x.text}</small>
              </Tile>
            ))}
          </Tiles>
        </>
      ) : (
        <Soft>
          {s.lamp} tells the codes, and no lamp in the dash shows that the unit is alive. What it drives does.
        </Soft>
      )}
      {(s.about.drives?.length ?? 0) > 0 && (
        <OutputChecks
          about={s.about}
          open={seen.lamp === "dark" || !hasLamp(s)}
          seen={seen.outputs}
          onChange={(outputs: Record<string, OutputSeen>) => tell({ ...seen, outputs })}
        />
      )}
      {suspect && <Measured about={s.about} seen={seen} tell={tell} />}
      {verdict && (
        <Verdict $pass={verdict.pass} aria-live="polite">
          <h2>{verdict.headline}</h2>
          <p>{verdict.reason}</p>
          {verdict.look.length > 0 && (
            <>
              <h3>Look at, in this order</h3>
              <ol>
                {verdict.look.map((l) => (
                  <li key={l}>{l}</li>
                ))}
              </ol>
              {shut && !verdict.pass && (
                <p>
                  <strong>The way to the codes stays closed until the lamp is steady.</strong> Mend it, then tap what
                  you see again.
                </p>
              )}
            </>
          )}
        </Verdict>
      )}
      {verdict && ["unit", "power-or-ground"].includes(verdict.suspect) && (
        <CompareVehicles about={s.about} here={seen} />
      )}
    </section>
  );
}

function Measured({ about, seen, tell }: { about: System; seen: UnitSeen; tell: (seen: UnitSeen) => void }) {
  return (
    <Sheet>
      <h3>Measured at the unit&apos;s plug, key on</h3>
      <Choice
        label={`Power (${about.feed ?? "feed"})`}
        value={seen.power ?? null}
        onChange={(power) => tell({ ...seen, power })}
        options={[
          { value: "good", label: "12 V or more" },
          { value: "bad", label: "Less, or nothing" },
        ]}
      />
      <Choice
        label={`Ground (${about.ground ?? "ground"})`}
        value={seen.ground ?? null}
        onChange={(ground) => tell({ ...seen, ground })}
        options={[
          { value: "good", label: "Below 0.1 V" },
          { value: "bad", label: "More" },
        ]}
      />
    </Sheet>
  );
}
