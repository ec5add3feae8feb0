import { Camera } from "lucide-react";
import { useState } from "react";
import { FileTrigger } from "react-aria-components/FileTrigger";
import { keepPhoto, type KeptPhoto } from "~/store/photos";
import { Button } from "./Button";

/** Takes a photo by the phone's camera, or one that is there already. */
export function PhotoPicker({
  label,
  of,
  iconOnly = false,
  onKept,
  onProblem,
}: {
  label: string;
  of: Pick<KeptPhoto, "vehicle" | "job">;
  iconOnly?: boolean;
  onKept: (id: string) => void;
  onProblem: (why: string | null) => void;
}) {
  const [busy, setBusy] = useState(false);
  const take = async (file: File) => {
    setBusy(true);
    onProblem(null);
    try {
      onKept(await keepPhoto(file, of));
    } catch (error) {
      onProblem((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <FileTrigger acceptedFileTypes={["image/*"]} onSelect={(files) => files?.[0] && void take(files[0])}>
      <Button isDisabled={busy} aria-label={label}>
        <Camera size={22} aria-hidden />
        {!iconOnly && (busy ? "Reading the photo …" : label)}
      </Button>
    </FileTrigger>
  );
}
