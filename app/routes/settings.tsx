import { useEffect, useState } from "react";
import { href } from "react-router";
import { BringIn } from "~/features/records/BringIn";
import { SaveAll } from "~/features/records/SaveAll";
import { StartAfresh } from "~/features/records/StartAfresh";
import { actionFor, intentFor, useSending } from "~/store/intents";
import { changeSettings, readSettings, someSettings, type Settings } from "~/store/settings";
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

const intents = { change: intentFor<null>()(someSettings, changeSettings) };
export const clientAction = ({ request }: Route.ClientActionArgs) =>
  actionFor(() => null)(intents)({ request, params: null });

const ON_OFF = { on: "On", off: "Off" };

/** What can be chosen, in the words of the page. */
const CHOICES: { [K in keyof Settings]: { label: string; options: Record<string, string> } } = {
  theme: {
    label: "Appearance",
    options: { system: "As the device", light: "Light, for the sun", dark: "Dark, for the shed" },
  },
  type: { label: "Size of type", options: { usual: "Usual", large: "Large" } },
  hand: { label: "Main buttons on a phone", options: { left: "On the left", right: "On the right" } },
  dates: {
    label: "Dates",
    options: { words: "3 Nov 2026", "day-first": "03/11/2026", "month-first": "11/3/2026", iso: "2026-11-03" },
  },
  speed: { label: "Speed unit", options: { "km/h": "km/h", mph: "mph" } },
  temperature: { label: "Temperature unit", options: { "°C": "°C", "°F": "°F" } },
  sound: { label: "Sound at timers and beats", options: ON_OFF },
  vibration: { label: "Vibration at timers and beats", options: ON_OFF },
  school: {
    label: "Once codes are written down",
    options: {
      usual: "One code: look. Several: clear",
      "look-first": "Look first",
      "clear-first": "Clear first, see what returns",
    },
  },
};

/** One setting. Each is sent by itself: a hand that is quicker than the store changes the next one while this is on its way. */
function Setting({ name, value }: { name: keyof Settings; value: string | boolean }) {
  const { send, problem } = useSending<typeof intents>(href("/settings"));
  const { label, options } = CHOICES[name];
  return (
    <>
      <Choice
        label={label}
        value={typeof value === "boolean" ? (value ? "on" : "off") : value}
        onChange={(to) => send({ intent: "change", [name]: typeof value === "boolean" ? to === "on" : to })}
        options={Object.entries(options).map(([of, words]) => ({ value: of, label: words }))}
      />
      <Trouble problem={problem} />
    </>
  );
}

export default function SettingsPage({ loaderData: { settings, demo } }: Route.ComponentProps) {
  return (
    <>
      <TopBar />
      <Main id="work">
        <h1>Settings for this device</h1>
        <Sheet>
          {(Object.keys(CHOICES) as (keyof Settings)[]).map((name) => (
            <Setting key={name} name={name} value={settings[name]} />
          ))}
          <Row>
            <Button onPress={askForKeys}>Show the keys</Button>
          </Row>
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
