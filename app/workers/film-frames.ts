import {
  BlobSource,
  Input,
  MP4,
  MATROSKA,
  QTFF,
  UnsupportedInputFormatError,
  VideoSampleSink,
  WEBM,
  type VideoSample,
} from "mediabunny";

export interface FilmInfo {
  /** Size as coded, and the turn clockwise that the metadata asks for. */
  width: number;
  height: number;
  rotation: 0 | 90 | 180 | 270;
  /** ms */
  duration: number;
}

/** Why a film could not be read, or not to its end. */
export type FilmProblem = "not-a-film" | "no-picture" | "cannot-decode" | "broken" | "cut-off" | "empty" | "too-long";

/** Nobody films a lamp for longer; what comes after is left out. */
const LONGEST_MS = 45 * 60_000;

/** A film that ends so much before its index says was cut off, s. */
const MISSING_S = 1.5;

/**
 * Goes through the frames of a film, decoded one after the other, each closed before the next.
 * @param each tells whether to go on
 * @returns what was wrong, or null
 */
export async function readFrames(
  file: Blob,
  opened: (film: FilmInfo) => void,
  each: (sample: VideoSample) => Promise<boolean>,
): Promise<FilmProblem | null> {
  if (!file.size) return "empty";
  const input = new Input({ source: new BlobSource(file), formats: [MP4, QTFF, WEBM, MATROSKA] });
  let frames = 0;
  try {
    const track = await input.getPrimaryVideoTrack();
    if (!track) return "no-picture";
    if (!(await track.canDecode())) return "cannot-decode";
    const { codedWidth: width, codedHeight: height, rotation } = track;
    const duration = await track.computeDuration();
    opened({ width, height, rotation, duration: duration * 1000 });
    let first: number | null = null;
    let last = 0;
    for await (const sample of new VideoSampleSink(track).samples()) {
      frames++;
      first ??= sample.timestamp;
      last = sample.timestamp + sample.duration;
      const long = (sample.timestamp - first) * 1000 > LONGEST_MS;
      const on = !long && (await each(sample));
      sample.close();
      if (long) return "too-long";
      if (!on) return null;
    }
    if (!frames) return "broken";
    // Its index tells of more than there is.
    return duration - last > MISSING_S ? "cut-off" : null;
  } catch (error) {
    if (error instanceof UnsupportedInputFormatError) return "not-a-film";
    return frames ? "cut-off" : "broken";
  } finally {
    input.dispose();
  }
}
