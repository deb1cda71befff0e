/** Gives a file to the reader's browser to save. */
export const saveFile = (name: string, mediaType: string, content: string | Uint8Array<ArrayBuffer>): void =>
  saveBlob(name, new Blob([content], { type: mediaType }));

/** The same of what the browser holds already. */
export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The browser needs the address until it has begun to save.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
