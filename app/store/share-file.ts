/** A file as other programs take it: few take JSON, all take text. */
const sharedAs = (name: string, what: Blob): File => new File([what], `${name}.txt`, { type: "text/plain" });

/** Can this browser hand files to other programs? */
export const canShare = (): boolean =>
  typeof navigator !== "undefined" &&
  "canShare" in navigator &&
  navigator.canShare({ files: [sharedAs("a", new Blob(["{}"]))] });

/** Hands a file to another program that the person chooses; called off is no fault. */
export async function shareFile(name: string, what: Blob): Promise<void> {
  try {
    await navigator.share({ files: [sharedAs(name, what)], title: name });
  } catch (error) {
    if ((error as Error).name !== "AbortError") throw error;
  }
}
