import { expose } from "comlink";
import type { Graph } from "@core/diagnosis/graph";
import { weigh, type AtHand, type Found, type Weighing } from "@core/diagnosis/weigh";

const api = {
  weigh: (graph: Graph, found: Found, atHand: AtHand): Weighing => weigh(graph, found, atHand),
};

export type SuspectsApi = typeof api;
expose(api);
