import { Ellipsis } from "lucide-react";
import { useState } from "react";
import { Dialog, DialogTrigger } from "react-aria-components/Dialog";
import { Popover } from "react-aria-components/Popover";
import styled from "styled-components";
import { END_WORDS, endsOf } from "@core/job/end";
import { sayVerdict } from "@core/job/say";
import { notebookText } from "@core/record/notebook-text";
import type { JobEnd } from "@core/record/types";
import type { JobData } from "~/store/job-data";
import { canShare, shareFile } from "~/store/share-file";
import { saveFile } from "~/store/save-file";
import { vehicleName } from "~/store/vehicle-name";
import { useIntents } from "~/store/use-job";
import { carryPath, handoverPath } from "~/store/paths";
import { Button, LinkButton } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Soft } from "~/ui/bits";
import type { JobIntents } from "~/store/job-intents";
import { Trouble } from "~/ui/Trouble";

const Box = styled(Dialog)`
  display: grid;
  gap: 10px;
  width: min(380px, calc(100vw - 32px));
  max-height: calc(100dvh - 90px);
  overflow-y: auto;
  padding: 18px 20px;
  border: 2px solid var(--line);
  border-radius: 12px;
  background: var(--sheet);
  outline: none;
  box-shadow: 0 8px 24px #0003;
`;

const LABEL: Record<JobEnd, string> = {
  ...END_WORDS,
  fixed: "Fixed, as far as the drive shows",
  "not-fixed": "Not fixed: still there",
  "handed-over": "Handed over to others",
};

/** A job can be ended from every step, by what its readings carry, or deleted. */
export function JobMenu({ data }: { data: JobData }) {
  const { send, problem } = useIntents<JobIntents>(null);
  const { job, judged, vehicle, readings } = data;
  const [unsaved, tell] = useState<string | null>(null);
  const name = `${vehicle.plate} ${job.openedAt.slice(0, 10)}`.replaceAll(/[^\w-]+/g, "-");
  const withJob = (give: (file: Blob) => void | Promise<void>) =>
    // What writes files is only loaded then.
    void import("~/store/save-records")
      .then(({ exportJob }) => exportJob(vehicle, job, readings))
      .then((file) => (tell(null), give(file)))
      .catch((error: Error) => tell(error.message));
  return (
    <>
      <DialogTrigger>
        <Button $look="quiet" aria-label="Sheet, files, end or delete this job">
          <Ellipsis size={22} aria-hidden />
        </Button>
        <Popover placement="bottom end">
          <Box aria-label="Sheet, files, end or delete this job">
            {({ close }) => (
              <>
                <LinkButton to={handoverPath(job.id)} style={{ justifyContent: "start" }}>
                  Sheet for workshop or customer
                </LinkButton>
                <LinkButton to={carryPath(job.id)} style={{ justifyContent: "start" }}>
                  Show it to another device
                </LinkButton>
                <Button
                  style={{ justifyContent: "start" }}
                  onPress={() => (withJob((file) => saveFile(`${name}.json`, file)), close())}
                >
                  Save this job as a file
                </Button>
                {canShare() && (
                  <Button
                    style={{ justifyContent: "start" }}
                    onPress={() => (withJob((file) => shareFile(name, file)), close())}
                  >
                    Share this job
                  </Button>
                )}
                <Button
                  style={{ justifyContent: "start" }}
                  onPress={() => {
                    saveFile(`${name}.txt`, notebookText(vehicle, vehicleName(vehicle), job), "text/plain");
                    close();
                  }}
                >
                  Save the notebook as text
                </Button>
                {job.closedAt ? (
                  <Button
                    onPress={() => {
                      send({ intent: "reopen" });
                      close();
                    }}
                  >
                    Open it again
                  </Button>
                ) : (
                  <>
                    <h2>End this job</h2>
                    <Soft>{sayVerdict(judged)}</Soft>
                    {endsOf(judged).map((end) => (
                      <Button
                        key={end}
                        style={{ justifyContent: "start" }}
                        onPress={() => {
                          send({ intent: "close", end });
                          close();
                        }}
                      >
                        {LABEL[end]}
                      </Button>
                    ))}
                  </>
                )}
                <ConfirmButton
                  label="Delete this job"
                  question="Delete it with its readings and notebook?"
                  sure="Delete for good"
                  onConfirm={() => {
                    send({ intent: "delete" });
                    close();
                  }}
                />
              </>
            )}
          </Box>
        </Popover>
      </DialogTrigger>
      <Trouble problem={problem ?? unsaved} />
    </>
  );
}
