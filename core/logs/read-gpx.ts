import sax from "sax";
import { Column, LOG_MAX_ROWS, type RawRead } from "./log";
import { dateReader } from "./times";

/**
 * The track of a GPX file: times, positions, and speeds where they were recorded (m/s, as GPX and its usual extensions have them).
 * Nothing that a file defines for itself (DOCTYPE, entities) is followed.
 */
export function readGpx(text: string): RawRead {
  if (/<!(doctype|entity)/i.test(text.slice(0, 20_000)))
    return {
      fault: "This file defines names of its own (DOCTYPE), which no GPX needs. Export the track again as plain GPX.",
    };
  const [t, lat, lon, speed] = [new Column(), new Column(), new Column(), new Column()];
  let skipped = 0;
  let timeless = 0;
  let point: { lat: number; lon: number; t: number; speed: number } | null = null;
  let within = "";
  let fault = "";
  const time = dateReader();
  const parser = sax.parser(true, { trim: true });
  const local = (name: string) => name.slice(name.indexOf(":") + 1).toLowerCase();
  parser.onerror = (error) => {
    if (!fault)
      fault = `This GPX breaks off or is damaged near line ${parser.line + 1}: ${error.message.split("\n")[0].slice(0, 80)}. Export it again.`;
    parser.error = null as unknown as Error;
  };
  parser.onopentag = ({ name, attributes }) => {
    within = local(name);
    if (within === "trkpt") {
      const number = (key: string) => Number(attributes[key] ?? NaN);
      point = { lat: number("lat"), lon: number("lon"), t: NaN, speed: NaN };
    }
  };
  parser.ontext = (said) => {
    if (!point) return;
    if (within === "time") point.t = time(said);
    else if (within === "speed") point.speed = Number(said);
  };
  parser.onclosetag = (name) => {
    within = "";
    if (local(name) !== "trkpt" || !point) return;
    const good = Math.abs(point.lat) <= 90 && Math.abs(point.lon) <= 180;
    if (!good) skipped++;
    else if (Number.isNaN(point.t)) timeless++;
    else {
      t.push(point.t);
      lat.push(point.lat);
      lon.push(point.lon);
      speed.push(point.speed);
    }
    point = null;
  };
  // In pieces, so that a file that is no GPX is left at its first fault.
  for (let at = 0; at < text.length && !fault && t.size <= LOG_MAX_ROWS; at += 65_536)
    parser.write(text.slice(at, at + 65_536));
  if (t.size > LOG_MAX_ROWS)
    return { fault: `This track has more than ${LOG_MAX_ROWS} points. Cut it to the days that are meant.` };
  if (!t.size)
    return {
      fault: timeless
        ? "This GPX has points but no times, so it says nothing of speed. Record the track with times."
        : fault || "This GPX holds no track. Export the recorded track, not a route or marked places.",
    };
  const speeds = speed.take();
  const some = speeds.some((v) => !Number.isNaN(v));
  // What came before the damage counts; that something is missing is told.
  return {
    raw: {
      t: t.take(),
      lat: lat.take(),
      lon: lon.take(),
      speed: some ? speeds : null,
      unit: some ? "m/s" : null,
      // What its extensions tell is the air.
      coolant: null,
      degrees: null,
      dated: true,
      // The format knows no other.
      zoned: true,
      skipped: skipped + timeless + Number(fault !== ""),
    },
  };
}
