import "@core/schema/joi-now";
import { bench } from "./bench";
import { decodeCases } from "./decode-cases";
import { fit } from "./fit";
import { generate } from "./generate";
import { benchJobs } from "./bench-jobs";
import { benchDiagnosis } from "./bench-diagnosis";
import { benchLogs } from "./bench-logs";
import { benchLearn } from "./bench-learn";
import { benchProof } from "./bench-proof";
import { benchTables } from "./bench-tables";
import { identifyCases } from "./identify-cases";
import { learnCases } from "./learn-cases";
import { packCheck, packSchemaOut, recordsSchemaOut } from "./pack-check";
import { taps } from "./taps";

const USAGE = `klinko decode --dialects D.json --cases F.jsonl [--table]   one JSON line a case
klinko identify --dialects D.json --cases F.jsonl           ranked dialects, one JSON line a case
klinko learn --cases F.jsonl                                how each lamp talks, with no dialect given
klinko bench-diagnosis [--n 1000] [--seed 5] [--pack ID] [--check]
klinko bench-proof [--n 20000] [--seed 5] [--check]         how probable it is said to be that a code is gone, against how often it is
klinko bench-logs [--n 1000] [--seed 11] [--check] [--v]
klinko bench-learn [--dir FOLDER | --made N [--seed 5] | --random N [--seed 5]] [--modes …] [--profiles …] [--check] [--show]
  how often that is right (default: ../shared/bench/wide), for made-up cases of its dialects, or of dialects at random
klinko bench [--dir FOLDER | --made N [--seed 5]] [--modes edges,taps,…] [--dialects a,b] [--table] [--identify] [--scale] [--short] [--json]
  exact, wrong and certainty figures for case files (default: ../shared/bench) or for made-up cases
klinko generate --dialects D.json [--modes …] [--profiles …] [--n 10] [--seed 1]   made-up cases with their truth
klinko fit --dialects D.json [--n 8] [--seed 70] [--write FILE]   constants of the observers from made-up cases
klinko jobs [--n 300] [--seed 1] [--packs a,b] [--kind careful|slipping] [--check] [--json] [--show N]
  whole made-up jobs, every statement held against the vehicle
klinko bench-tables [--n 40] [--seed 1] [--hints] [--show] [--check]
  how well tables are read from made-up pages of text, by layout
klinko pack check FILE                                      every fault of a pack file, with its path
klinko pack schema                                          the pack format as a JSON Schema
klinko records schema                                       the file of records as a JSON Schema
klinko taps --pack ID --codes 26,43 [--until MS] [--seed N]   when a made-up hand would tap
A file named - is standard input; --stack tells where something went wrong.`;

/** `--name value` and bare `--name`. */
function options(args: string[]): Map<string, string> {
  const found = new Map<string, string>();
  for (let i = 0; i < args.length; i++) {
    if (!args[i].startsWith("--")) continue;
    const value = args[i + 1];
    found.set(args[i].slice(2), value === undefined || value.startsWith("--") ? "" : value);
  }
  return found;
}

const [command, ...rest] = process.argv.slice(2);
const given = options(rest);
const commands: Record<string, () => number> = {
  decode: () => decodeCases(given),
  identify: () => identifyCases(given),
  learn: () => learnCases(given),
  "bench-diagnosis": () => benchDiagnosis(given),
  "bench-logs": () => benchLogs(given),
  "bench-learn": () => benchLearn(given),
  bench: () => bench(given),
  generate: () => generate(given),
  fit: () => fit(given),
  taps: () => taps(given),
  "bench-proof": () => benchProof(given),
  "bench-tables": () => benchTables(given),
  jobs: () => benchJobs(given),
  records: () => (rest[0] === "schema" ? recordsSchemaOut() : usage()),
  pack: () => (rest[0] === "check" ? packCheck(rest[1]) : rest[0] === "schema" ? packSchemaOut() : usage()),
};
if (command && Object.hasOwn(commands, command)) process.exitCode = attempt(command);
else process.exitCode = usage();

/** What goes wrong is told in a line; --stack tells where. */
function attempt(name: string): number {
  try {
    return commands[name]();
  } catch (error) {
    const { message, cause, stack } = error as Error;
    console.error(`klinko ${name}: ${message.split("\n")[0]}${cause instanceof Error ? ` (${cause.message})` : ""}`);
    if (given.has("stack")) console.error(stack, cause);
    return 2;
  }
}

function usage(): number {
  console.error(USAGE);
  return 2;
}
