import { Check, Lock } from "lucide-react";
import { useEffect, useRef } from "react";
import { NavLink } from "react-router";
import styled from "styled-components";
import { STEP_IDS, type StepId } from "@core/record/types";
import { lockOfStep, type JobData } from "~/store/job-data";
import { Hidden } from "~/ui/bits";
import { STEP_NAMES } from "~/ui/steps";
import { wide } from "~/ui/theme";
import { jobPath } from "~/store/paths";

const List = styled.ol`
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
  gap: 2px;
  position: relative;
  li {
    position: relative;
    flex: 1 0 auto;
  }
  ${wide} {
    flex-direction: column;
    overflow: visible;
    li {
      flex: none;
    }
    li + li::before {
      content: "";
      position: absolute;
      left: 15px;
      top: -9px;
      height: 18px;
      border-left: 2px solid var(--line);
    }
  }
`;

const item = `
  display: flex; align-items: center; gap: 10px; min-height: 48px; padding: 4px 10px 4px 4px; color: var(--ink-soft); text-decoration: none;
`;

const Item = styled.div`
  ${item}
  small {
    display: block;
    font-size: 0.75rem;
    line-height: 1.15;
  }
`;

const StepLink = styled(NavLink)`
  ${item}
  border-radius: 8px;
  &:hover {
    color: var(--ink);
  }
  &.active {
    color: var(--ink);
    font-weight: 700;
  }
`;

const Dot = styled.i`
  flex: none;
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border-radius: 50%;
  border: 2px solid var(--ink-soft);
  background: var(--paper);
  color: var(--ink-soft);
  &[data-is="done"] {
    border-color: var(--done);
    color: var(--done);
  }
  &[data-is="locked"] {
    border-style: dashed;
  }
  .active > & {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--paper);
    &::after {
      content: "";
      width: 8px;
      height: 8px;
      border-radius: 4px;
      background: var(--paper);
    }
    svg {
      display: none;
    }
  }
`;

/** The path of a job: what is done, where it stands, and what is locked and why. */
export function JobPath({ data, at }: { data: JobData; at: StepId }) {
  const { job } = data;
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    // On a narrow screen the path scrolls sideways: keep the step that is open in view.
    const here = list.current?.querySelector<HTMLElement>("a.active")?.parentElement;
    if (here) list.current?.scrollTo({ left: here.offsetLeft - 60 });
  }, [at]);
  return (
    <nav aria-label="Steps of the job">
      <List ref={list}>
        {STEP_IDS.map((step) => {
          const lock = lockOfStep(data, step);
          const done = job.done.includes(step);
          return (
            <li key={step}>
              {lock && !done ? (
                <Item aria-disabled="true">
                  <Dot data-is="locked">
                    <Lock size={12} aria-hidden />
                  </Dot>
                  <span>
                    {STEP_NAMES[step]}
                    <small>
                      <Hidden>locked: </Hidden>
                      {lock}
                    </small>
                  </span>
                </Item>
              ) : (
                <StepLink to={jobPath(job.id, step)} prefetch="none">
                  <Dot data-is={done ? "done" : "open"}>{done && <Check size={16} strokeWidth={3} aria-hidden />}</Dot>
                  {STEP_NAMES[step]}
                  {done && <Hidden>, done</Hidden>}
                </StepLink>
              )}
            </li>
          );
        })}
      </List>
    </nav>
  );
}
