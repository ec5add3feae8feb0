import { Dialog } from "react-aria-components/Dialog";
import { Modal, ModalOverlay } from "react-aria-components/Modal";
import styled from "styled-components";
import { Button } from "./Button";
import { mono } from "./theme";

const KEYS: readonly { where: string; keys: readonly (readonly [keys: readonly string[], does: string])[] }[] = [
  {
    where: "Everywhere",
    keys: [
      [["/"], "Search the garage, except where a lamp is tapped"],
      [["?"], "This sheet"],
      [["Esc"], "Close, or leave it as it was"],
    ],
  },
  {
    where: "In a job",
    keys: [
      [["N"], "Write a line in the notebook, except where a lamp is tapped"],
      [["Enter"], "Next step of the hook-up"],
      [["K"], "Turn of the key, to the beat"],
    ],
  },
  {
    where: "Reading a lamp",
    keys: [
      [["Space"], "Tap, or hold while it is lit"],
      [["F", "J"], "Short flash, long flash"],
      [["B"], "The button was let go"],
      [["Z"], "Take the last mark or correction back"],
    ],
  },
  {
    where: "On the lamp strip",
    keys: [
      [["←", "→"], "The mark before, the next one"],
      [["Alt ←", "Alt →"], "Move the mark"],
      [["Del", "+"], "Remove it, add one after it"],
      [["[", "]", "0"], "Smaller, larger, as it was"],
    ],
  },
];

const Over = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  display: grid;
  place-items: center;
  padding: 12px;
  background: #0009;
`;

const Box = styled(Dialog)`
  display: grid;
  gap: 16px;
  width: min(760px, calc(100vw - 24px));
  max-height: calc(100vh - 24px);
  overflow: auto;
  padding: 20px 24px;
  border-radius: 12px;
  background: var(--sheet);
  color: var(--ink);
  outline: none;
`;

const Groups = styled.div`
  display: grid;
  gap: 18px 36px;
  grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr));
  h3 {
    margin-bottom: 6px;
  }
  dl > div {
    display: grid;
    grid-template-columns: 116px 1fr;
    gap: 12px;
    align-items: baseline;
    padding: 5px 0;
  }
  dt {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
`;

const Key = styled.kbd`
  ${mono}
  padding: 2px 8px;
  border: 2px solid var(--line);
  border-radius: 6px;
  font-size: 0.9rem;
  white-space: nowrap;
`;

/** All keys that do something, by where they do it. */
export default function KeySheet({ onClose }: { onClose: () => void }) {
  return (
    <Over isOpen isDismissable onOpenChange={(open) => !open && onClose()}>
      <Modal>
        <Box aria-label="Keys">
          <h2>Keys</h2>
          <Groups>
            {KEYS.map(({ where, keys }) => (
              <section key={where}>
                <h3>{where}</h3>
                <dl>
                  {keys.map(([names, does]) => (
                    <div key={does}>
                      <dt>
                        {names.map((k) => (
                          <Key key={k}>{k}</Key>
                        ))}
                      </dt>
                      <dd>{does}</dd>
                    </div>
                  ))}
                </dl>
              </section>
            ))}
          </Groups>
          <Button autoFocus onPress={onClose}>
            Close
          </Button>
        </Box>
      </Modal>
    </Over>
  );
}
