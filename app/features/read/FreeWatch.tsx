import { useMemo, useState } from "react";
import { byHand, inputsFor, isPicture } from "@core/record/inputs";
import type { KeptLamp } from "@core/record/lamp";
import type { Reading } from "@core/record/types";
import { flashWorker } from "~/workers/flash";
import type { LampSeen } from "~/workers/lamp.worker";
import { shortTime } from "~/store/format";
import { readLoose } from "~/store/loose";
import { allPacks } from "~/store/packs";
import { useAwake } from "~/store/use-awake";
import { Button } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { Elsewhere } from "./Elsewhere";
import { looseHome } from "./home";
import { Inputs } from "./Inputs";
import { KeepWith, type Garage } from "./KeepWith";
import { KeptLamps } from "./KeptLamps";
import { LearnedTalk } from "./LearnedTalk";
import { PictureWatch } from "./picture/picture-watch";
import { fitOf, orderByFit, type Ranking } from "./picture/ranking";
import { PictureStage } from "./picture/Stage";
import { Codes, Said, STILL } from "./Said";
import { ReadingSession } from "./session";
import { useSession } from "./use-session";
import { SessionStrip } from "./strip/SessionStrip";
import { dialectsOf, SURE, useBelieved, type Believed } from "./use-believed";
import { useWatch } from "./use-watch";
import { UndoButton } from "./UndoButton";
import { Dock } from "./Watch";
import { useWorking } from "./use-working";

const SHOWN = 3;
const JUDGED_MS = 90_000;

/** Watches any lamp: no vehicle was chosen, so which dialect it speaks is found out too. @param stored what was read last, if it is still here */
export function FreeWatch({
  stored,
  lamps,
  ...garage
}: { stored: Reading | null; lamps: readonly KeptLamp[] } & Garage) {
  useAwake();
  // While a lamp is watched it is held against the same ones, also where it has just been kept.
  const [taught, setTaught] = useState(lamps);
  const known = useMemo(() => dialectsOf(allPacks(), taught), [taught]);
  const [session] = useState(
    () => new ReadingSession(looseHome(known[0].dialect, "unknown", stored), stored?.input ?? "camera"),
  );
  const [picture] = useState(
    () =>
      new PictureWatch(
        () => [session],
        (lamps, until) => speaking(known, lamps, until),
      ),
  );
  const { phase, input, some, pictured, playhead, setPlayhead } = useWatch(session, picture);
  const believed = useBelieved(session, known);
  const working = useWorking(session, picture, believed.asking);
  const speaks = useSession(session, () => session.home.speaks !== "unknown");
  if (!some && taught !== lamps) setTaught(lamps);
  // Nothing blinks this way; asking how it talks would lead astray.
  const misfit = useSession(session, (s) => s.decoded?.misfit ?? null);
  const dialect = useSession(session, (s) => s.reading.dialect);
  const again = useSession(session, (s) =>
    s.reading.id === stored?.id && s.phase === "stopped" ? s.reading.startedAt : null,
  );
  const elsewhere = useSession(session, (s) => s.elsewhere);
  const title = "A lamp";
  const another = () => {
    picture.close();
    believed.forget();
    void session.startOver();
  };
  return (
    <>
      <Elsewhere
        one="watch"
        session={session}
        again={async () => {
          const last = await readLoose();
          if (last) session.takeOver(last);
          else session.setElsewhere(false);
        }}
      />
      {!elsewhere && (
        <>
          {some && (speaks || (phase === "stopped" && !working)) ? (
            <Said session={session} working={working} />
          ) : (
            <h1 aria-busy={working}>{working ? STILL : some ? "Watching …" : "Watch a lamp"}</h1>
          )}
          {!some && (
            <Soft>
              Works with any vehicle: Klinko works out how its lamp talks. Afterwards you can keep the reading with a
              vehicle.
            </Soft>
          )}
          {!some && <KeptLamps lamps={lamps} />}
          {again && <Soft>Read at {shortTime(again)}, and kept on this device since.</Soft>}
          {some && misfit !== "even" && (speaks || phase === "watching") && !believed.learned && (
            <Speaks {...believed} known={known} />
          )}
          {pictured && <PictureStage picture={picture} names={[title]} playhead={playhead} onPlayhead={setPlayhead} />}
          {/* Which make it is was told by nobody: no code is certain. */}
          <Codes session={session} given={believed.given} most="likely" />
          {some && (
            <Sheet>
              <SessionStrip
                session={session}
                picture={picture}
                playhead={playhead}
                onPlayhead={setPlayhead}
                lamps={[{ name: title, session }]}
                title={title}
              />
            </Sheet>
          )}
          {some && believed.learned && <LearnedTalk learned={believed.learned} done={phase === "stopped"} />}
          {phase === "stopped" && some && speaks && !misfit && (
            <KeepWith session={session} dialect={dialect} {...garage} />
          )}
          {phase === "stopped" ? (
            <Row $gap={8}>
              {byHand(input) && <Button onPress={session.goOn}>Go on watching</Button>}
              {input === "camera" && <Button onPress={() => void picture.startCamera()}>Go on watching</Button>}
              <UndoButton session={session} />
              {some ? (
                <ConfirmButton
                  label="Watch another"
                  question="Throw this reading away?"
                  sure="Throw away"
                  onConfirm={another}
                />
              ) : (
                <Button onPress={another}>Watch another</Button>
              )}
            </Row>
          ) : (
            (phase === "ready" || !isPicture(input)) && (
              <Dock>
                {phase === "watching" && (
                  <Row $gap={8}>
                    <Button onPress={session.stop}>Stop watching</Button>
                    <UndoButton session={session} />
                  </Row>
                )}
                <Inputs session={session} picture={picture} inputs={inputsFor(null)} locked={some} />
              </Dock>
            )
          )}
        </>
      )}
    </>
  );
}

/** Which dialect is believed, and the rivals; the person may say which it is. */
function Speaks({
  ranked,
  none,
  said,
  setSaid,
  known,
}: ReturnType<typeof useBelieved> & { known: readonly Believed[] }) {
  const [best] = ranked;
  if (said) {
    const own = known.find((k) => k.dialect.id === said)!;
    return (
      <Row $gap={8}>
        <p>
          Read as <strong>{own.makes.join(", ")}</strong>, as you said.
        </p>
        <Button onPress={() => setSaid(null)}>Find out by itself</Button>
      </Row>
    );
  }
  if (!best) return <Soft>How it talks shows after a few flashes.</Soft>;
  const shown = ranked.slice(0, SHOWN);
  // One make may have several.
  const nameOf = ({ makes, dialect }: Believed) =>
    shown.some((r) => r.dialect !== dialect && r.makes[0] === makes[0])
      ? `${makes.join(", ")} (${lower(dialect.title)})`
      : makes.join(", ");
  const percent = (p: number) => (p > 0.995 ? "over 99 %" : `${Math.round(100 * p)} %`);
  return (
    <div style={{ display: "grid", gap: 8 }}>
      {best.probability >= SURE ? (
        <p role="status">
          It blinks like <strong>{best.makes.join(", ")}</strong>: {lower(best.dialect.title)} (
          {percent(best.probability)} among the lamps that Klinko knows). Of another make, these are not its codes.
        </p>
      ) : (
        <>
          <Caution>
            {none > 0.5
              ? "It blinks like none of the lamps that Klinko knows, so no code is told. Watch a whole round, or say which it is."
              : "Not sure how it talks yet: watch on, or say which it is."}
          </Caution>
          <Row $gap={8}>
            {shown.map((r) => (
              <Button key={r.dialect.id} onPress={() => setSaid(r.dialect.id)}>
                {nameOf(r)}, {percent(r.probability)}
              </Button>
            ))}
          </Row>
        </>
      )}
    </div>
  );
}

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** Of several patches that blink the one that speaks any dialect best. */
async function speaking(known: readonly Believed[], lamps: readonly LampSeen[], until: number): Promise<Ranking> {
  const fits = await Promise.all(
    lamps.map(async ({ t, y }) => {
      // The first minute and a half tells lamps from what merely blinks.
      const n = t.findLastIndex((ms) => ms < JUDGED_MS) + 1;
      const filmed = {
        mode: "levels" as const,
        levels: { t: [...t.subarray(0, n)], y: [...y.subarray(0, n)] },
        until: Math.min(until, JUDGED_MS),
      };
      const { ranked } = await flashWorker("judge").identify(
        known.map((k) => k.dialect),
        filmed,
      );
      const [best] = ranked;
      const { dialect } = known.find((k) => k.dialect.id === best?.dialect) ?? known[0];
      const { decoded } = await flashWorker("judge").readFilm(dialect, filmed, []);
      return fitOf(decoded);
    }),
  );
  return orderByFit(lamps, fits);
}
