import { Link } from "react-router";
import styled from "styled-components";
import { marked, type Entry } from "@core/search/search";
import { shortDate } from "~/store/format";
import { jobPath, vehiclePath } from "~/store/paths";
import { useRecordSearch } from "~/store/use-record-search";
import { Mono, Sheet, Soft } from "~/ui/bits";

const KINDS: Record<Entry["kind"], string> = {
  note: "Notebook",
  story: "Story",
  verdict: "Verdict",
  repair: "Repair",
  change: "Changed on it",
  work: "Work",
};

const Line = styled.li`
  padding: 10px 0;
  border-top: 1px solid var(--rule);
  a {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 3;
    overflow: hidden;
    overflow-wrap: anywhere;
    padding: 4px 0;
  }
  mark {
    color: inherit;
    background: var(--tint);
    font-weight: 700;
  }
`;

/** What was written about any vehicle and holds these words. @param besides vehicles are called so, too */
export function FoundList({ words, besides }: { words: string; besides: boolean }) {
  const { found, busy, failed } = useRecordSearch(words);
  const total = found?.total ?? 0;
  // Where vehicles answer to the words, that nothing else does is no news.
  if (besides && total === 0 && !failed) return null;
  return (
    <Sheet aria-label="In the records">
      <h2>In the records</h2>
      <Soft role="status">
        {failed
          ? "The records could not be searched just now. Type once more."
          : busy && !found
            ? "Looking through all jobs …"
            : total === 0
              ? "Nothing that was written down holds these words."
              : total > found!.hits.length
                ? `${total} entries hold these words; here are the newest ${found!.hits.length}.`
                : `${total} ${total === 1 ? "entry holds" : "entries hold"} these words.`}
      </Soft>
      <ul aria-label="Entries found" aria-busy={busy}>
        {found?.hits.map((hit, i) => (
          <Line key={i}>
            <Soft>
              <Mono>{hit.plate}</Mono> · {shortDate(hit.at)} · {KINDS[hit.kind]}
            </Soft>
            <Link to={hit.job ? jobPath(hit.job) : vehiclePath(hit.vehicle)}>
              {marked(hit.text, words).map((part, n) => (n % 2 ? <mark key={n}>{part}</mark> : part))}
            </Link>
          </Line>
        ))}
      </ul>
    </Sheet>
  );
}
