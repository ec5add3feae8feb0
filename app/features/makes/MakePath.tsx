import { Check } from "lucide-react";
import { useEffect, useRef } from "react";
import { NavLink } from "react-router";
import styled from "styled-components";
import type { Missing } from "@core/pack/make/missing";
import { makePath, type MakePart } from "~/store/paths";
import { Hidden } from "~/ui/bits";
import { wide } from "~/ui/theme";
import { PART_NAMES } from "./parts";

const List = styled.ol`
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
  gap: 2px;
  position: relative;
  li {
    flex: 1 0 auto;
  }
  ${wide} {
    flex-direction: column;
    overflow: visible;
  }
`;

const PartLink = styled(NavLink)`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 48px;
  padding: 4px 12px 4px 6px;
  border-radius: 8px;
  color: var(--ink-soft);
  text-decoration: none;
  border-left: 4px solid transparent;
  &:hover {
    color: var(--ink);
  }
  &.active {
    color: var(--ink);
    font-weight: 700;
    border-left-color: var(--ink);
  }
  i {
    flex: none;
    display: grid;
    place-items: center;
    width: 24px;
    height: 24px;
    border-radius: 6px;
    border: 2px dashed var(--ink-soft);
    &[data-told] {
      border: 2px solid var(--done);
      color: var(--done);
    }
  }
`;

/** The parts of a make in the order of the job: which are told, and which are as they mostly are. */
export function MakePath({
  pack,
  parts,
  at,
  missing,
}: {
  pack: string;
  parts: readonly MakePart[];
  at: MakePart | null;
  missing: readonly Missing[];
}) {
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    const here = list.current?.querySelector<HTMLElement>("a.active")?.parentElement;
    if (here) list.current?.scrollTo({ left: here.offsetLeft - 60 });
  }, [at]);
  return (
    <nav aria-label="Parts of the make">
      <List ref={list}>
        {parts.map((part) => {
          const open = missing.some((m) => m.part === part || (part === "clears" && m.part === "proving"));
          const told = part !== "hand-over" && !open;
          return (
            <li key={part}>
              <PartLink to={makePath(pack, part)} prefetch="none">
                {part !== "hand-over" && (
                  <i data-told={told ? "" : undefined}>{told && <Check size={16} strokeWidth={3} aria-hidden />}</i>
                )}
                {PART_NAMES[part]}
                <Hidden>{told ? ", told" : part === "hand-over" ? "" : ", assumed or missing"}</Hidden>
              </PartLink>
            </li>
          );
        })}
      </List>
    </nav>
  );
}
