import { Undo2 } from "lucide-react";
import { Button } from "~/ui/Button";
import { Kbd } from "~/ui/bits";
import type { ReadingSession } from "./session";
import { useSession } from "./use-session";

/** Takes the last mark or correction back; see also {@link useUndoKey}. */
export function UndoButton({ session }: { session: ReadingSession }) {
  const can = useSession(session, (s) => s.undo.length > 0);
  return (
    <Button isDisabled={!can} onPress={session.undo}>
      <Undo2 size={20} aria-hidden /> Undo <Kbd>Z</Kbd>
    </Button>
  );
}
