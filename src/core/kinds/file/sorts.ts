import type { FileSort } from './schema';

/** What each sort of file is called, which media types it has (IANA) and how such files are named. */
export const fileSorts: Record<FileSort, { label: string; types: string[]; endings: string[] }> = {
  picture: {
    label: 'picture',
    types: ['image/png', 'image/jpeg', 'image/gif', 'image/webp'],
    endings: ['.png', '.jpg', '.jpeg', '.gif', '.webp'],
  },
  pdf: { label: 'PDF', types: ['application/pdf'], endings: ['.pdf'] },
  text: {
    label: 'text',
    types: [
      'text/plain',
      'application/vnd.oasis.opendocument.text',
      'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
    ],
    endings: ['.txt', '.odt', '.docx'],
  },
  sheet: {
    label: 'sheet',
    types: [
      'text/csv',
      'application/vnd.oasis.opendocument.spreadsheet',
      'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    ],
    endings: ['.csv', '.ods', '.xlsx'],
  },
  sound: {
    label: 'sound',
    types: ['audio/mpeg', 'audio/mp4', 'audio/ogg', 'audio/wav', 'audio/webm'],
    endings: ['.mp3', '.m4a', '.ogg', '.wav', '.weba'],
  },
};

/** Whether a file is of a sort that is taken, by its media type or, where it has none that is known, by its ending. */
export function isTaken(file: { name: string; mediaType: string }, sorts: readonly FileSort[]): boolean {
  if (sorts.length === 0) return true;
  return sorts.some((sort) => {
    const { types, endings } = fileSorts[sort];
    return (
      types.includes(file.mediaType) || endings.some((ending) => file.name.toLowerCase().endsWith(ending))
    );
  });
}

/** "a picture or PDF": what is taken, in words. */
export function sortWords(sorts: readonly FileSort[]): string {
  const labels = sorts.map((sort) => fileSorts[sort].label);
  if (labels.length === 0) return 'a file of any sort';
  return `a ${labels.length === 1 ? '' : `${labels.slice(0, -1).join(', ')} or `}${labels.at(-1)}${sorts.includes('picture') ? '' : ' file'}`;
}
