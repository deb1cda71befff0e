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

/** A title as the name of a file: letters and digits of any script, the rest dashes. */
export function fileNameOf(title: string): string {
  return (
    title
      .normalize('NFC')
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 80) || 'paper'
  );
}
