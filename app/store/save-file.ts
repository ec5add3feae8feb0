/** Hands something to the person as a file. */
export function saveFile(name: string, what: string | Blob, type = "application/json"): void {
  const url = URL.createObjectURL(new Blob([what], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
