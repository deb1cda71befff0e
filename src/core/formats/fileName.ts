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
