import { useEffect, useRef } from "react";
import { Caution } from "./bits";

/** What went wrong with what was just done, beside it and in sight; nothing where nothing did. */
export function Trouble({ problem }: { problem: string | null | undefined }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (problem) box.current?.scrollIntoView({ block: "nearest" });
  }, [problem]);
  if (!problem) return null;
  return (
    <div role="alert" ref={box}>
      <Caution>{problem}</Caution>
    </div>
  );
}
