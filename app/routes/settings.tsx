import { useEffect, useState } from "react";
import { useRevalidator } from "react-router";
import { BringIn } from "~/features/records/BringIn";
import { SaveAll } from "~/features/records/SaveAll";
import { StartAfresh } from "~/features/records/StartAfresh";
import { changeSettings, readSettings, type Settings } from "~/store/settings";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Row, Sheet, Soft } from "~/ui/bits";
import { askForKeys } from "~/ui/Keys";
import { Trouble } from "~/ui/Trouble";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/settings";

export const clientLoader = async () => ({
  settings: await readSettings(),
  demo: document.documentElement.dataset.demo === "yes",
});
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the settings" />;
}

export const meta: Route.MetaFunction = () => [{ title: "Settings · Klinko" }];

const ON_OFF = [
  { value: "on", label: "On" },
  { value: "off", label: "Off" },
] as const;

export default function SettingsPage({ loaderData: { settings, demo } }: Route.ComponentProps) {
  const revalidator = useRevalidator();
  const [problem, setProblem] = useState<string | null>(null);
  const change = (part: Partial<Settings>) =>
    void changeSettings(part).then(
      () => (setProblem(null), revalidator.revalidate()),
      (error: Error) => setProblem(error.message),
    );
  return (
    <>
      <TopBar />
      <Main id="work">
        <h1>Settings for this device</h1>
        <Sheet>
          <Choice
            label="Appearance"
            value={settings.theme}
            onChange={(theme) => change({ theme })}
            options={[
              { value: "system", label: "As the device" },
              { value: "light", label: "Light, for the sun" },
              { value: "dark", label: "Dark, for the shed" },
            ]}
          />
          <Choice
            label="Size of type"
            value={settings.type}
            onChange={(type) => change({ type })}
            options={[
              { value: "usual", label: "Usual" },
              { value: "large", label: "Large" },
            ]}
          />
          <Choice
            label="Main buttons on a phone"
            value={settings.hand}
            onChange={(hand) => change({ hand })}
            options={[
              { value: "left", label: "On the left" },
              { value: "right", label: "On the right" },
            ]}
          />
          <Choice
            label="Dates"
            value={settings.dates}
            onChange={(dates) => change({ dates })}
            options={[
              { value: "words", label: "3 Nov 2026" },
              { value: "day-first", label: "03/11/2026" },
              { value: "month-first", label: "11/3/2026" },
              { value: "iso", label: "2026-11-03" },
            ]}
          />
          <Choice
            label="Speed unit"
            value={settings.speed}
            onChange={(speed) => change({ speed })}
            options={[
              { value: "km/h", label: "km/h" },
              { value: "mph", label: "mph" },
            ]}
          />
          <Choice
            label="Temperature unit"
            value={settings.temperature}
            onChange={(temperature) => change({ temperature })}
            options={[
              { value: "°C", label: "°C" },
              { value: "°F", label: "°F" },
            ]}
          />
          <Choice
            label="Sound at timers and beats"
            value={settings.sound ? "on" : "off"}
            onChange={(to) => change({ sound: to === "on" })}
            options={ON_OFF}
          />
          <Choice
            label="Vibration at timers and beats"
            value={settings.vibration ? "on" : "off"}
            onChange={(to) => change({ vibration: to === "on" })}
            options={ON_OFF}
          />
          <Choice
            label="Once codes are written down"
            value={settings.school}
            onChange={(school) => change({ school })}
            options={[
              { value: "usual", label: "One code: look. Several: clear" },
              { value: "look-first", label: "Look first" },
              { value: "clear-first", label: "Clear first, see what returns" },
            ]}
          />
          <Row>
            <Button onPress={askForKeys}>Show the keys</Button>
          </Row>
          <Trouble problem={problem} />
        </Sheet>
        <Sheet>
          <h2>Your records</h2>
          <p>
            They are in this browser, on this device, and nowhere else. Clearing the browser&apos;s data removes them:
            keep a file.
          </p>
          <SaveAll />
          <Kept />
          <BringIn />
        </Sheet>
        <StartAfresh demo={demo} />
        <Soft>
          Klinko stands on the work of others: <a href="/notices.txt">their names and licences</a>.
        </Soft>
      </Main>
    </>
  );
}

/** Whether the browser may throw the records away by itself when it runs short; it can be asked not to. */
function Kept() {
  const [kept, setKept] = useState<boolean | null>(null);
  const [refused, setRefused] = useState(false);
  const storage = (globalThis.navigator as Partial<Navigator> | undefined)?.storage;
  useEffect(() => {
    void storage?.persisted().then(setKept, () => undefined);
  }, [storage]);
  if (kept === null) return null;
  return kept ? (
    <Soft>The browser has promised to keep them, also when the device runs short of room.</Soft>
  ) : (
    <>
      <Soft>The browser may throw them away by itself when the device runs short of room.</Soft>
      <Row>
        <Button
          onPress={() =>
            void storage!.persist().then(
              (yes) => (setKept(yes), setRefused(!yes)),
              () => setRefused(true),
            )
          }
        >
          Ask the browser to keep them
        </Button>
      </Row>
      {refused && (
        <Soft role="status">
          It said no. It may agree once Klinko is installed or has been used for a while; until then keep a file.
        </Soft>
      )}
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
