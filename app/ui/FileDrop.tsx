import { DropZone } from "react-aria-components/DropZone";
import { FileTrigger } from "react-aria-components/FileTrigger";
import { Text } from "react-aria-components/Text";
import styled from "styled-components";
import type { ReactNode } from "react";
import { Button } from "./Button";
import { Soft } from "./bits";

const Zone = styled(DropZone)`
  display: grid;
  gap: 10px;
  justify-items: center;
  padding: 22px;
  border: 3px dashed var(--line);
  border-radius: 12px;
  text-align: center;
  &[data-drop-target] {
    border-color: var(--petrol);
    background: var(--tint);
  }
`;

/** One file, by drop or picker. */
export function FileDrop({
  label,
  pick,
  accept,
  onFile,
  children,
}: {
  label: string;
  /** What the picker's button says. */
  pick: string;
  accept: string[];
  onFile: (file: File) => void;
  /** What kind of file is meant. */
  children: ReactNode;
}) {
  return (
    <Zone
      onDrop={(e) => {
        const item = e.items.find((i) => i.kind === "file");
        if (item?.kind === "file") void item.getFile().then(onFile);
      }}
    >
      <Text slot="label">{label}</Text>
      <FileTrigger acceptedFileTypes={accept} onSelect={(files) => files?.[0] && onFile(files[0])}>
        <Button>{pick}</Button>
      </FileTrigger>
      <Soft>{children}</Soft>
    </Zone>
  );
}
