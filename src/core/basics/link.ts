/** The address of a link to read on, when it is one that may be opened: http or https. Null otherwise. */
export function openableLink(text: string): string | null {
  const trimmed = text.trim();
  if (!URL.canParse(trimmed)) return null;
  const { protocol, href, hostname } = new URL(trimmed);
  return (protocol === 'https:' || protocol === 'http:') && hostname !== '' ? href : null;
}
