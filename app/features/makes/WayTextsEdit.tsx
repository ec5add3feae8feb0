import { ArrowDown, ArrowUp, GripVertical } from "lucide-react";
import { useState } from "react";
import { GridList, GridListItem } from "react-aria-components/GridList";
import { useDragAndDrop } from "react-aria-components/useDragAndDrop";
import { Button as AriaButton } from "react-aria-components/Button";
import styled from "styled-components";
import type { Step, Way, WayTexts } from "@core/pack/way";
import { useMake } from "~/store/use-make";
import { Button } from "~/ui/Button";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { middle } from "~/ui/theme";
import { LiveField, needed } from "./LiveField";

const List = styled(GridList)`
  display: grid;
  gap: 8px;
`;

const Item = styled(GridListItem)`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 4px 10px;
  align-items: start;
  > :last-child {
    grid-column: 1 / -1;
    justify-content: end;
  }
  ${middle} {
    grid-template-columns: auto minmax(0, 1fr) auto;
    > :last-child {
      grid-column: auto;
    }
  }
  padding: 10px;
  border: 2px solid var(--line);
  border-radius: 10px;
  background: var(--sheet);
  &[data-dragging] {
    opacity: 0.5;
  }
  &[data-focus-visible] {
    outline: 3px solid var(--petrol);
  }
`;

const Grip = styled(AriaButton)`
  display: grid;
  place-items: center;
  min-width: 48px;
  min-height: 48px;
  border: 0;
  border-radius: 8px;
  background: none;
  color: var(--ink-soft);
  cursor: grab;
  &[data-focus-visible] {
    outline: 3px solid var(--petrol);
  }
`;

const moved = <T,>(list: readonly T[], from: number, to: number): T[] => {
  const out = [...list];
  out.splice(to, 0, ...out.splice(from, 1));
  return out;
};

/** The steps of a way, what has to be true before, and why it may not answer: line by line, in any order. */
export function WayTextsEdit({ way, onTold }: { way: Way; onTold: (texts: WayTexts) => void }) {
  const { pack } = useMake();
  const texts: WayTexts = { preconditions: way.preconditions, steps: way.steps, nothingHappens: way.nothingHappens };
  const [open, setOpen] = useState<string | null>(null);
  const keep = `make/${pack.id}/${way.id}`;
  const steps = (next: Step[]) => onTold({ ...texts, steps: next });
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((k) => ({ "text/plain": String(k) })),
    onReorder: ({ keys, target }) => {
      const from = way.steps.findIndex((s) => keys.has(s.id));
      const onto = way.steps.findIndex((s) => s.id === target.key);
      if (from < 0 || onto < 0) return;
      const to = target.dropPosition === "before" ? onto : onto + 1;
      steps(moved(way.steps, from, to > from ? to - 1 : to));
    },
  });
  const shown = way.steps.find((s) => s.id === open);
  const added = () => {
    let n = way.steps.length + 1;
    while (way.steps.some((s) => s.id === `step-${n}`)) n++;
    const id = `step-${n}`;
    steps([...way.steps, { id, title: "One more step", text: "What to do.", key: "any", wire: "any" }]);
    setOpen(id);
  };
  return (
    <>
      <Sheet>
        <h2>Steps</h2>
        <List aria-label="Steps" dragAndDropHooks={dragAndDropHooks} selectionMode="none">
          {way.steps.map((s, i) => (
            <Item key={s.id} id={s.id} textValue={s.title}>
              <Grip slot="drag" aria-label={`Move ${s.title}`}>
                <GripVertical size={20} aria-hidden />
              </Grip>
              <div>
                <strong>
                  {i + 1}. {s.title}
                </strong>
                <p>{s.text}</p>
                {s.caution && <Caution>{s.caution}</Caution>}
              </div>
              <Row $gap={0}>
                <Button
                  $look="quiet"
                  aria-label={`${s.title}: up`}
                  isDisabled={i === 0}
                  onPress={() => steps(moved(way.steps, i, i - 1))}
                >
                  <ArrowUp size={20} aria-hidden />
                </Button>
                <Button
                  $look="quiet"
                  aria-label={`${s.title}: down`}
                  isDisabled={i === way.steps.length - 1}
                  onPress={() => steps(moved(way.steps, i, i + 1))}
                >
                  <ArrowDown size={20} aria-hidden />
                </Button>
                <Button
                  $look="quiet"
                  aria-label={`Change ${s.title}`}
                  onPress={() => setOpen(open === s.id ? null : s.id)}
                >
                  {open === s.id ? "Close" : "Change"}
                </Button>
              </Row>
            </Item>
          ))}
        </List>
        {shown && (
          <StepFields
            key={shown.id}
            step={shown}
            keep={`${keep}/${shown.id}`}
            onTold={(next) => steps(way.steps.map((s) => (s.id === shown.id ? next : s)))}
            onRemove={
              way.steps.length > 1 ? () => (setOpen(null), steps(way.steps.filter((s) => s.id !== shown.id))) : null
            }
          />
        )}
        <Row>
          <Button onPress={added}>Add a step</Button>
        </Row>
      </Sheet>
      <Around keep={keep} texts={texts} onTold={onTold} />
    </>
  );
}

/** One step, to be changed. */
function StepFields({
  step,
  keep,
  onTold,
  onRemove,
}: {
  step: Step;
  keep: string;
  onTold: (step: Step) => void;
  onRemove: (() => void) | null;
}) {
  const { caution: _, ...plain } = step;
  return (
    <div style={{ display: "grid", gap: 12 }}>
      <LiveField
        label="Step"
        keep={`${keep}/title`}
        value={step.title}
        maxLength={120}
        fault={needed("A step needs a name.")}
        onStore={(title) => onTold({ ...step, title })}
      />
      <LiveField
        label="What to do"
        rows={2}
        keep={`${keep}/text`}
        value={step.text}
        maxLength={1000}
        fault={needed("Write what to do.")}
        onStore={(text) => onTold({ ...step, text })}
      />
      <LiveField
        label="Caution"
        description="Where something can go wrong at this step"
        keep={`${keep}/caution`}
        value={step.caution ?? ""}
        maxLength={300}
        onStore={(caution) => onTold(caution ? { ...step, caution } : plain)}
      />
      {onRemove && (
        <Row>
          <Button $look="quiet" onPress={onRemove}>
            Take this step out
          </Button>
        </Row>
      )}
    </div>
  );
}

/** What has to be true before, and where to look when nothing happens. */
function Around({ keep, texts, onTold }: { keep: string; texts: WayTexts; onTold: (texts: WayTexts) => void }) {
  return (
    <Sheet>
      <LiveField
        label="Before you begin"
        description="A line each"
        rows={Math.max(3, texts.preconditions.length)}
        keep={`${keep}/before`}
        value={texts.preconditions.join("\n")}
        maxLength={2000}
        fault={(t) => (linesIn(t).length > 12 ? "At most 12 lines." : null)}
        onStore={(t) => onTold({ ...texts, preconditions: linesIn(t) })}
      />
      <h2>When nothing happens</h2>
      {texts.nothingHappens.map((c, i) => (
        <LiveField
          key={c.id}
          label={c.text}
          keep={`${keep}/cause-${c.id}`}
          value={c.look}
          maxLength={500}
          fault={needed("Write what to look at.")}
          onStore={(look) =>
            onTold({ ...texts, nothingHappens: texts.nothingHappens.map((x, k) => (k === i ? { ...x, look } : x)) })
          }
        />
      ))}
      <Soft>The job ranks these by what is seen instead.</Soft>
    </Sheet>
  );
}

const linesIn = (text: string): string[] =>
  text
    .split("\n")
    .map((l) => l.trim())
    .filter(Boolean);
