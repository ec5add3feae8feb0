import styled from "styled-components";
import { findWays } from "@core/pack/find";
import { trapsFor, variantOf } from "@core/pack/scope";
import { allPacks } from "~/store/packs";
import { useIntents, useJob } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Caution, Mono, Row, Sheet, Soft } from "~/ui/bits";
import { Assumed } from "~/ui/Assumed";
import { METHOD_WORDS } from "~/ui/methods";
import type { JobIntents } from "~/store/job-intents";
import type { WayInIntents } from "./intents";
import { Trouble } from "~/ui/Trouble";

const List = styled.ul`
  display: grid;
  gap: 12px;
`;

/** How this vehicle is read: each system with its way, why, and what lies in wait. */
export function WayInStep() {
  const { vehicle, pack, systems, access } = useJob();
  const { send, busy, problem } = useIntents<WayInIntents>("way-in");
  const whole = useIntents<JobIntents>(null);
  const variant = variantOf(pack, vehicle);
  const traps = variant ? trapsFor(variant, vehicle) : [];
  const found = findWays(allPacks(), {
    make: pack.id,
    variant: vehicle.variant,
    year: vehicle.year,
    engine: vehicle.engine,
    market: vehicle.market,
    seen: {},
  });
  return (
    <>
      <h1>
        {systems.length === 1
          ? `One way in: ${METHOD_WORDS[access.way.method].toLowerCase()}.`
          : `${systems.length} systems can be read. Which one first?`}
      </h1>
      <Assumed pack={pack} way={access.way} parts={["way"]} />
      {traps.map((t) => (
        <Caution key={t.text}>{t.text}</Caution>
      ))}
      <List aria-label="Ways in">
        {systems.map((s, i) => (
          <li key={s.system}>
            <Sheet style={s.system === access.system ? { outline: "3px solid var(--petrol)" } : undefined}>
              <Row style={{ justifyContent: "space-between" }}>
                <div>
                  <h2>{s.name}</h2>
                  <p>{s.way.title}</p>
                  <Soft>
                    Method <Mono>{s.way.method}</Mono>: {METHOD_WORDS[s.way.method]}. Watch: {s.lamp}.
                  </Soft>
                </div>
                {systems.length > 1 && (
                  <Button
                    aria-pressed={s.system === access.system}
                    onPress={() => whole.send({ intent: "system", system: s.system })}
                  >
                    {s.system === access.system ? "This one first" : "Read this first"}
                  </Button>
                )}
              </Row>
              {s.connector && systems.findIndex((x) => x.connector === s.connector) === i && (
                <>
                  <p>{s.connector.where}</p>
                  {s.connector.orElse?.map((o) => (
                    <Soft key={o}>{o}</Soft>
                  ))}
                  {s.connector.lookAlike && <Caution>{s.connector.lookAlike}</Caution>}
                </>
              )}
              {s.about.caution && <Caution>{s.about.caution}</Caution>}
            </Sheet>
          </li>
        ))}
      </List>
      <Soft>
        Why: {found.ways[0]?.reasons.join("; ") ?? "as the pack says"}, engine {vehicle.engine}. Does the plug not look
        like that?{" "}
        <LinkButton $look="quiet" to="/find">
          Find it by what you see
        </LinkButton>
      </Soft>
      <Row>
        <Button $look="primary" isDisabled={busy} onPress={() => send({ intent: "way-in" })}>
          On to the lamp check
        </Button>
      </Row>
      <Trouble problem={problem ?? whole.problem} />
    </>
  );
}
