import { useState } from "react";
import styled from "styled-components";
import type { SeenInstead, Way } from "@core/pack/way";
import { rankCauses } from "@core/procedure/nothing-happens";
import { useIntents } from "~/store/use-job";
import { Button } from "~/ui/Button";
import { Choice, type Option } from "~/ui/Choice";
import { Soft } from "~/ui/bits";
import type { HookUpIntents } from "./intents";

const List = styled.ol`
  display: grid;
  gap: 2px;
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 4px 16px;
    align-items: center;
    padding: 10px 0;
    border-top: 1px solid var(--rule);
  }
  li:first-child {
    border-top: 0;
  }
  [data-out] {
    color: var(--ink-soft);
  }
  i {
    display: block;
    height: 6px;
    margin-top: 6px;
    border-radius: 3px;
    background: var(--petrol);
  }
`;

const SEEN: Record<SeenInstead, string> = {
  steady: "Stays as it was",
  dark: "Stays dark",
  "other-lamp": "Another lamp blinks",
  gibberish: "Bytes that make no sense",
};

/** Why nothing happens, the likeliest first; what was looked at and is not it makes the others likelier. */
export function Causes({ way, ruledOut }: { way: Way; ruledOut: readonly string[] }) {
  const { send } = useIntents<HookUpIntents>("hook-up");
  const [seen, setSeen] = useState<SeenInstead | null>(null);
  const ranked = rankCauses(way.nothingHappens, seen, ruledOut);
  const named = new Set(way.nothingHappens.flatMap((c) => c.seen ?? []));
  const options: Option<SeenInstead>[] = [...named].map((value) => ({ value, label: SEEN[value] }));
  const left = ranked.filter((r) => !r.ruledOut);
  return (
    <div style={{ display: "grid", gap: 12 }}>
      {options.length > 1 && <Choice label="What is seen instead" value={seen} onChange={setSeen} options={options} />}
      <List aria-label="Likely causes">
        {ranked.map(({ cause, probability, ruledOut: out }) => (
          <li key={cause.id} data-out={out || undefined}>
            <div>
              <strong>{out ? <s>{cause.text}</s> : cause.text}</strong>
              {!out && <p>{cause.look}</p>}
              {!out && <i style={{ width: `${Math.max(2, Math.round(probability * 100))}%` }} aria-hidden />}
            </div>
            <Button
              $look="quiet"
              onPress={() => send({ intent: "rule-out", way: way.id, cause: cause.id, text: cause.text, out: !out })}
              aria-label={out ? `Look at it again: ${cause.text}` : `Not it: ${cause.text}`}
            >
              {out ? "Look again" : "Not it"}
            </Button>
          </li>
        ))}
      </List>
      {left.length === 0 && (
        <Soft>All of these are ruled out. Go back to the lamp check: does the unit still answer there?</Soft>
      )}
    </div>
  );
}
