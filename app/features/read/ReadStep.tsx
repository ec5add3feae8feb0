import { useAwake } from "~/store/use-awake";
import { lockOfStep } from "~/store/job-data";
import { useJob } from "~/store/use-job";
import { LinkButton } from "~/ui/Button";
import { Empty } from "~/ui/bits";
import { DashText } from "./DashText";
import { ModuleWalk } from "./ModuleWalk";
import { ReadinessWatch } from "./ReadinessWatch";
import { SerialData } from "./SerialData";
import { Watch } from "./Watch";
import { jobPath } from "~/store/paths";

export function ReadStep() {
  const data = useJob();
  useAwake();
  const { job, access } = data;
  const lock = lockOfStep(data, "read");
  if (lock)
    return (
      <Empty level={1} title={`Reading is closed: ${lock}.`}>
        <p>Only a unit that passes the lamp check is worth asking for codes.</p>
        <LinkButton $look="primary" to={jobPath(job.id, "lamp-check")}>
          To the lamp check
        </LinkButton>
      </Empty>
    );
  const { tells } = access.way;
  switch (tells.kind) {
    case "lamp":
      return access.dialect && <Watch key={access.system} data={data} dialect={access.dialect} />;
    case "text":
      return <DashText key={access.way.id} data={data} tells={tells} />;
    case "modules":
      return <ModuleWalk key={access.way.id} data={data} tells={tells} />;
    case "readiness":
      return <ReadinessWatch key={access.way.id} data={data} tells={tells} />;
    case "serial":
      return <SerialData key={access.way.id} data={data} tells={tells} />;
  }
}
