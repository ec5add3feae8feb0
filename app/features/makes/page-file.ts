import { PAGE_MAX } from "@core/table/read-table";

/** Larger files are no page of a manual, bytes. */
const PICTURE_MAX = 40_000_000;

/** What a file turned out to be, or why it cannot be read, in words. */
export type PageFile = { text: string } | { picture: File } | { problem: string };

/** Looks at a file that somebody gives for the page of a manual. */
export async function pageFile(file: File): Promise<PageFile> {
  if (file.type.startsWith("image/") || /\.(?:jpe?g|png|webp|heic|heif|gif|bmp|avif)$/i.test(file.name))
    return file.size > PICTURE_MAX
      ? { problem: `${file.name} is larger than ${PICTURE_MAX / 1e6} MB. Take a smaller picture of the page.` }
      : { picture: file };
  if (file.size > 4 * PAGE_MAX) return { problem: `${file.name} is larger than a table of codes can be.` };
  const bytes = await file.arrayBuffer();
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    text = new TextDecoder("windows-1252").decode(bytes);
  }
  if (/[\u0000-\u0008]/.test(text.slice(0, 2000)))
    return { problem: `${file.name} is no text and no picture. Save the table as CSV or text, or take a photo of it.` };
  return { text };
}

/** What is said of a picture that could not be read. */
export const NO_PICTURE =
  "This picture could not be opened here. Save it as JPEG or PNG (on a phone: the most compatible camera format), or paste the table.";
