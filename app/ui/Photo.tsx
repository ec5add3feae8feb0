import { useEffect, useState } from "react";
import { Button as AriaButton } from "react-aria-components/Button";
import { Dialog, DialogTrigger } from "react-aria-components/Dialog";
import { Modal, ModalOverlay } from "react-aria-components/Modal";
import styled from "styled-components";
import { readPhoto } from "~/store/photos";
import { shortTime } from "~/store/format";
import { Button } from "./Button";
import { Row, Soft } from "./bits";

const Small = styled(AriaButton)<{ $height: number }>`
  display: inline-block;
  padding: 0;
  border: 2px solid var(--line);
  border-radius: 10px;
  overflow: hidden;
  background: var(--rule);
  cursor: zoom-in;
  line-height: 0;
  max-width: 100%;
  img {
    height: ${({ $height }) => $height}px;
    max-width: 100%;
    object-fit: cover;
  }
  &[data-focus-visible] {
    outline: 3px solid var(--petrol);
    outline-offset: 2px;
  }
`;

const Over = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  display: grid;
  place-content: center;
  padding: 16px;
  background: #000c;
`;

const Large = styled(Dialog)`
  display: grid;
  gap: 10px;
  padding: 14px;
  border-radius: 12px;
  background: var(--sheet);
  outline: none;
  img {
    max-width: 100%;
    max-height: calc(100dvh - 140px);
    object-fit: contain;
    border-radius: 6px;
  }
`;

/** A photo that was kept, small; pressed, as large as the screen. */
export function Photo({ id, of, height = 72 }: { id: string; of: string; height?: number }) {
  const [seen, see] = useState<{ url: string; at: string } | "loading" | "missing">("loading");
  useEffect(() => {
    let url: string | null = null;
    let gone = false;
    void readPhoto(id).then(
      (kept) => {
        if (gone) return;
        if (!kept) return see("missing");
        url = URL.createObjectURL(kept.photo);
        see({ url, at: kept.at });
      },
      () => gone || see("missing"),
    );
    return () => {
      gone = true;
      if (url) URL.revokeObjectURL(url);
    };
  }, [id]);
  if (seen === "loading") return <span style={{ display: "block", height }} />;
  if (seen === "missing") return <Soft>A photo that is not on this device.</Soft>;
  return (
    <DialogTrigger>
      <Small $height={height} aria-label={`Photo ${of}, larger`}>
        <img src={seen.url} alt="" />
      </Small>
      <Over isDismissable>
        <Modal>
          <Large aria-label={`Photo ${of}`}>
            {({ close }) => (
              <>
                <img src={seen.url} alt={`Photo ${of}`} />
                <Row>
                  <Soft>Taken down {shortTime(seen.at)}</Soft>
                  <Button onPress={close} style={{ marginLeft: "auto" }}>
                    Close
                  </Button>
                </Row>
              </>
            )}
          </Large>
        </Modal>
      </Over>
    </DialogTrigger>
  );
}
