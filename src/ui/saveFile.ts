/** Gives a file to the reader's browser to save. */
export function saveFile(name: string, mediaType: string, content: string | Uint8Array<ArrayBuffer>): void {
  const url = URL.createObjectURL(new Blob([content], { type: mediaType }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The browser needs the address until it has begun to save.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
