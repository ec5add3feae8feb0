import { Caution } from "./bits";

/** What went wrong with what was just done, beside it; nothing where nothing did. */
export function Trouble({ problem }: { problem: string | null | undefined }) {
  if (!problem) return null;
  return (
    <div role="alert">
      <Caution>{problem}</Caution>
    </div>
  );
}
