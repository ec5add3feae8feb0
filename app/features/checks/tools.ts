import { Gauge, Replace, Wind, Zap, type LucideIcon } from "lucide-react";
import type { Tool } from "@core/diagnosis/checks";

export const TOOL_WORDS: Record<Tool, string> = {
  meter: "multimeter",
  gauge: "fuel pressure gauge",
  "vacuum-pump": "hand vacuum pump",
  spare: "known good part",
};

export const TOOL_ICONS: Record<Tool, LucideIcon> = { meter: Zap, gauge: Gauge, "vacuum-pump": Wind, spare: Replace };
