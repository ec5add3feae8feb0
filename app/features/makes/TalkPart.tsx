import { Link } from "react-router";
import { assumedOfAny } from "@core/pack/assumed";
import { withDialect } from "@core/pack/make/build";
import { namesBy } from "@core/pack/make/parts";
import { dialectOf, retalked, saysAll, TALK_EXAMPLES, talkOf, type Empty, type Talk } from "@core/pack/make/talk";
import type { Dialect } from "@core/flash/dialect/dialect";
import { dialectIdOf } from "@core/pack/way";
import { useEdit, useMake } from "~/store/use-make";
import { Choice } from "~/ui/Choice";
import { Fold } from "~/ui/Fold";
import { Caution, Sheet, Soft, Stack } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { LampDemo } from "./LampDemo";
import { LiveField } from "./LiveField";
import { NextPart } from "./NextPart";
import { Tile } from "./WayPart";
import { Beside, Columns, Tiles } from "./layout";

/** How the lamp talks: picked from examples, or learned from the lamp itself; then in detail. */
export function TalkPart() {
  const { pack, lamps } = useMake();
  const { edit, problem } = useEdit(pack);
  const speakers = (id: string) => pack.ways.filter((w) => dialectIdOf(w) === id);
  const used = pack.dialects.filter((d) => pack.ways.some((w) => dialectIdOf(w) === d.id));
  return (
    <>
      <h1>How does the lamp talk?</h1>
      {used.map((dialect) => {
        const ways = speakers(dialect.id);
        const told = !assumedOfAny(pack, "talk", ways);
        const press = ways.some((w) => ["reader", "unit-button"].includes(w.ask.kind));
        const names = [...new Set(ways.map((w) => namesBy(pack, w.id)))].join(", ");
        // Units of one vehicle mostly blink alike: what was told of another lamp is one of the examples.
        const others = used.filter(
          (d) =>
            d.id !== dialect.id && (d.advance === "button") === press && !assumedOfAny(pack, "talk", speakers(d.id)),
        );
        const to = (next: Dialect) => edit((p) => withDialect(p, next));
        const same = (talk: Talk, title: string) =>
          told && JSON.stringify(dialectOf(talk, dialect.id, title)) === JSON.stringify(dialect);
        return (
          <Beside key={dialect.id}>
            <Stack>
              {used.length > 1 && <h2>{names}</h2>}
              <Tiles role="group" aria-label={used.length > 1 ? `Ways to blink, ${names}` : "Ways to blink"}>
                {others.map((d) => (
                  <Tile
                    key={d.id}
                    isSelected={told && JSON.stringify({ ...d, id: dialect.id }) === JSON.stringify(dialect)}
                    onChange={() => to({ ...d, id: dialect.id })}
                  >
                    <strong>Like {namesBy(pack, speakers(d.id)[0].id)}</strong>
                    <small>{d.title}.</small>
                  </Tile>
                ))}
                {TALK_EXAMPLES.filter((e) => e.talk.press === press).map((e) => (
                  <Tile
                    key={e.id}
                    isSelected={same(e.talk, e.title)}
                    onChange={() => to(dialectOf(e.talk, dialect.id, e.title))}
                  >
                    <strong>{e.title}</strong>
                    <small>{e.says}</small>
                  </Tile>
                ))}
                {lamps
                  .filter((l) => (l.dialect.advance === "button") === press)
                  .map((l) => (
                    <Tile
                      key={l.id}
                      isSelected={told && dialect.title === l.dialect.title}
                      onChange={() => to({ ...l.dialect, id: dialect.id })}
                    >
                      <strong>{l.name}</strong>
                      <small>Learned from a lamp on this device.</small>
                    </Tile>
                  ))}
              </Tiles>
              <Soft>
                Not sure? <Link to="/watch">Watch the lamp</Link>: Klinko works out how it talks. Keep it under a name,
                and it stands here.
              </Soft>
              {!saysAll(dialect) && (
                <Caution>
                  This way of blinking has more to it than the fields below can say. A change there makes it simpler.
                </Caution>
              )}
              <Fold plain={used.length === 1} label={`Digits, rests and times of ${names}`}>
                <Stack>
                  <TalkFields
                    key={dialect.id}
                    talk={talkOf(dialect)}
                    press={press}
                    keep={`make/${pack.id}/${dialect.id}`}
                    onTold={(t) => to(retalked(dialect, t))}
                  />
                </Stack>
              </Fold>
            </Stack>
            <Sheet>
              <h2>What it looks like</h2>
              <LampDemo key={JSON.stringify(dialect)} dialect={dialect} code={codeFor(dialect)} />
              {!told && (
                <Caution>Nobody has said how this lamp talks: what Klinko reads by it stays likely at most.</Caution>
              )}
            </Sheet>
          </Beside>
        );
      })}
      <Trouble problem={problem} />
      <NextPart after="talk" />
    </>
  );
}

/** A code that shows how digits are told apart. */
const codeFor = ({ digits: { style, count } }: Dialect): string =>
  style === "total" ? "7" : ({ 1: "4", 2: "24", 3: "124", 4: "1243" }[Math.max(...count)] ?? "24");

const TIMES = ["1", "2", "3", "4"].map((n) => ({ value: n, label: n === "1" ? "Once" : `${n} times` }));

const EMPTY: readonly { value: Empty["is"]; label: string }[] = [
  { value: "nothing", label: "Nothing, or I do not know" },
  { value: "lead-alone", label: "Only the code in front" },
  { value: "even", label: "Blinks evenly" },
  { value: "one-flash", label: "One flash" },
  { value: "lit", label: "Stays lit" },
  { value: "dark", label: "Stays dark" },
  { value: "code", label: "A code that says all is well" },
];

const codeFault = (text: string): string | null =>
  /^[1-9]\d{0,3}$/.test(text) ? null : "Write the code as a number, such as 12.";

function TalkFields({
  talk,
  press,
  keep,
  onTold,
}: {
  talk: Talk;
  press: boolean;
  keep: string;
  onTold: (talk: Talk) => void;
}) {
  const set = (part: Partial<Talk>) => onTold({ ...talk, ...part });
  const yes = (label: string, value: boolean, to: (on: boolean) => void, [on, off]: [string, string]) => (
    <Choice
      label={label}
      value={value ? "on" : "off"}
      options={[
        { value: "on", label: on },
        { value: "off", label: off },
      ]}
      onChange={(v) => to(v === "on")}
    />
  );
  const usual = talk.digits.length === 1 ? String(talk.digits[0]) : "1,2";
  return (
    <>
      <Sheet>
        <h2>In detail</h2>
        {talk.style === "counted" && (
          <Choice
            label="Digits of a code"
            value={usual}
            options={["1", "2", "3", "4", "1,2"].map((n) => ({ value: n, label: n === "1,2" ? "One or two" : n }))}
            onChange={(n) => set({ digits: n.split(",").map(Number) })}
          />
        )}
        {talk.style === "counted" &&
          yes("A zero", talk.zero, (zero) => set({ zero }), ["Ten flashes", "There is none"])}
        {!press && (
          <>
            <Choice
              label="Each code is shown"
              value={String(talk.times)}
              options={TIMES}
              onChange={(n) => set({ times: Number(n) })}
            />
            {yes(
              "A code of its own in front",
              talk.lead !== null,
              (on) => set({ lead: on ? { code: "12", times: talk.times } : null }),
              ["Yes", "No"],
            )}
            {talk.lead && (
              <LiveField
                label="The code in front"
                keep={`${keep}/lead`}
                value={talk.lead.code}
                maxLength={4}
                inputMode="numeric"
                fault={codeFault}
                onStore={(code) => set({ lead: { code, times: talk.lead!.times } })}
              />
            )}
            {yes("A code that ends the list", talk.end !== null, (on) => set({ end: on ? "55" : null }), ["Yes", "No"])}
            {talk.end && (
              <LiveField
                label="The code at the end"
                keep={`${keep}/end`}
                value={talk.end}
                maxLength={4}
                inputMode="numeric"
                fault={codeFault}
                onStore={(end) => set({ end })}
              />
            )}
            {yes("The list", talk.round, (round) => set({ round }), ["Goes round and round", "Is shown once"])}
            {yes("It lights for a moment first", talk.test, (test) => set({ test }), ["Yes", "No"])}
          </>
        )}
        <Choice
          label="Where nothing is stored"
          value={talk.empty.is}
          options={EMPTY.filter((e) => e.value !== "lead-alone" || talk.lead)}
          onChange={(is) => set({ empty: is === "code" ? { is, code: "11" } : { is } })}
        />
        {talk.empty.is === "code" && (
          <LiveField
            label="The code that says all is well"
            keep={`${keep}/pass`}
            value={talk.empty.code}
            maxLength={4}
            inputMode="numeric"
            fault={codeFault}
            onStore={(code) => set({ empty: { is: "code", code } })}
          />
        )}
        {yes("Between flashes it is", talk.rest === "lit", (lit) => set({ rest: lit ? "lit" : "dark" }), [
          "Lit",
          "Dark",
        ])}
      </Sheet>
      <Times talk={talk} press={press} keep={keep} onTold={onTold} />
    </>
  );
}

/** How long flashes and rests take. */
function Times({
  talk,
  press,
  keep,
  onTold,
}: {
  talk: Talk;
  press: boolean;
  keep: string;
  onTold: (talk: Talk) => void;
}) {
  const set = (part: Partial<Talk>) => onTold({ ...talk, ...part });
  return (
    <Sheet>
      <h2>Times, where you have them</h2>
      <Columns>
        <Seconds
          label="A flash"
          keep={`${keep}/short`}
          ms={talk.ms.short}
          onTold={(short) => set({ ms: { ...talk.ms, short } })}
        />
        {talk.style === "long-short" && (
          <Seconds
            label="A long flash"
            keep={`${keep}/long`}
            ms={talk.ms.long}
            onTold={(long) => set({ ms: { ...talk.ms, long } })}
          />
        )}
        <Seconds
          label="Rest after a flash"
          keep={`${keep}/flash`}
          ms={talk.ms.flash}
          onTold={(flash) => set({ ms: { ...talk.ms, flash } })}
        />
        {talk.style === "counted" && (
          <Seconds
            label="Rest between digits"
            keep={`${keep}/digit`}
            ms={talk.ms.digit}
            onTold={(digit) => set({ ms: { ...talk.ms, digit } })}
          />
        )}
        {!press && (
          <>
            <Seconds
              label="Rest between codes"
              keep={`${keep}/code`}
              ms={talk.ms.code}
              onTold={(code) => set({ ms: { ...talk.ms, code } })}
            />
            <Seconds
              label="Rest before the list comes again"
              keep={`${keep}/pass`}
              ms={talk.ms.pass}
              onTold={(pass) => set({ ms: { ...talk.ms, pass } })}
            />
          </>
        )}
      </Columns>
      <Soft>Seconds. A lamp that is some faster or slower is read all the same.</Soft>
    </Sheet>
  );
}

function Seconds({
  label,
  keep,
  ms,
  onTold,
}: {
  label: string;
  keep: string;
  ms: number;
  onTold: (ms: number) => void;
}) {
  return (
    <LiveField
      label={label}
      keep={keep}
      inputMode="numeric"
      maxLength={6}
      value={String(ms / 1000)}
      fault={(t) => {
        const s = Number(t.replace(",", "."));
        return s >= 0.12 && s <= 60 ? null : "Between 0.12 and 60 seconds.";
      }}
      onStore={(t) => onTold(Math.round(Number(t.replace(",", ".")) * 1000))}
    />
  );
}
