import { Download } from "lucide-react";
import { Menu, MenuItem, MenuTrigger } from "react-aria-components/Menu";
import { Popover } from "react-aria-components/Popover";
import styled from "styled-components";
import { writeTrace, type Trace } from "@core/lamp/trace";
import { writeVcd } from "@core/lamp/vcd";
import { traceOf } from "@core/record/evidence";
import { nowIso } from "~/store/clock";
import { saveFile } from "~/store/save-file";
import { Button } from "~/ui/Button";
import type { ReadingSession } from "../session";
import { drawStrip, pngOf } from "./draw-svg";
import { layStrip } from "./layout";

const Items = styled(Menu)`
  min-width: 240px;
  padding: 6px;
  border: 2px solid var(--line);
  border-radius: 12px;
  background: var(--sheet);
  outline: none;
  box-shadow: 0 8px 24px #0003;
`;

const Item = styled(MenuItem)`
  display: flex;
  align-items: center;
  min-height: 48px;
  padding: 0 14px;
  border-radius: 8px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: var(--tint);
  }
`;

/** Width and scale of a saved strip, px. */
const PAPER = { width: 1240, perSecond: 34 };

/** A lamp and what it is called in a file. */
export interface NamedLamp {
  name: string;
  session: ReadingSession;
}

/** The strip as a picture or as a file for other programs; where two lamps were watched, both. */
export function SaveAs({ lamps, title }: { lamps: readonly NamedLamp[]; title: string }) {
  const seen = () => lamps.filter((l) => l.session.state.reading.marks.length > 0);
  const trace = ({ session }: NamedLamp): Trace => {
    const { reading } = session.state;
    return traceOf(reading, session.now(), session.home.dialect.rest);
  };
  const picture = () => {
    const [{ session }] = seen();
    const { reading, decoded } = session.state;
    const { lines, pxPerMs } = layStrip(reading.marks, decoded, PAPER);
    return drawStrip(lines, pxPerMs, title);
  };
  const save: Record<string, () => void> = {
    csv: () => {
      for (const l of seen()) saveFile(`${fileName(l.name)}.csv`, writeTrace(trace(l)), "text/csv");
    },
    vcd: () =>
      saveFile(
        `${fileName(title)}.vcd`,
        writeVcd(
          seen().map((l) => ({ name: l.name, trace: trace(l) })),
          nowIso(),
        ),
        "text/plain",
      ),
    svg: () => saveFile(`${fileName(title)}.svg`, picture().svg, "image/svg+xml"),
    png: () => void pngOf(picture()).then((blob) => saveFile(`${fileName(title)}.png`, blob, "image/png")),
  };
  return (
    <MenuTrigger>
      <Button $look="quiet">
        <Download size={20} aria-hidden /> Save the strip
      </Button>
      <Popover>
        <Items aria-label="Save the strip as" onAction={(key) => save[String(key)]()}>
          <Item id="png">Picture (PNG)</Item>
          <Item id="svg">Picture (SVG)</Item>
          <Item id="csv">Trace (CSV)</Item>
          <Item id="vcd">Value change dump (VCD)</Item>
        </Items>
      </Popover>
    </MenuTrigger>
  );
}

const fileName = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "") || "lamp";
