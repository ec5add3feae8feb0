import { useFetcher } from "react-router";
import { useMake } from "~/store/use-make";
import { makePath } from "~/store/paths";
import { Button } from "~/ui/Button";
import { Trouble } from "~/ui/Trouble";

/** Puts a stand-in of this make into the garage, with a job on one of its systems, and opens it. */
export function RehearseButton({ isDisabled, system, label }: { isDisabled: boolean; system: string; label: string }) {
  const { pack } = useMake();
  const fetcher = useFetcher<{ problem: string } | null>();
  return (
    <>
      <Button
        $look="primary"
        isDisabled={isDisabled || fetcher.state !== "idle"}
        onPress={() =>
          void fetcher.submit(
            { intent: "rehearse", system },
            { method: "post", action: makePath(pack.id), encType: "application/json" },
          )
        }
      >
        {label}
      </Button>
      <Trouble problem={fetcher.data?.problem} />
    </>
  );
}
