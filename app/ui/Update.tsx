import { useLocation } from "react-router";
import styled from "styled-components";
import { useUpdate } from "~/offline/use-update";
import { Button } from "./Button";

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding: 6px clamp(12px, 2vw, 24px);
  background: var(--tint);
`;

/** A newer Klinko is offered, and never while a lamp is watched. */
export function Update() {
  const update = useUpdate();
  const { pathname } = useLocation();
  if (!update || /\/(read|watch|hook-up|clear)$/.test(pathname)) return null;
  return (
    <Bar role="status">
      <p>
        {update.taking
          ? "The newer Klinko takes over … If it does not, close all its pages and open it again."
          : "A newer Klinko is ready."}
      </p>
      {!update.taking && <Button onPress={update.take}>Use it now</Button>}
    </Bar>
  );
}
