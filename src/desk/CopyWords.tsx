import { useNow } from '../ui/clock';
import { dayAndTime } from '@/words/format';
import { ageWords, copyFaultWords } from '@/words/backups';
import { notCopiedSince } from '@/sync/copyPlaces';
import { useCopyPlaces } from './useCopyPlaces';

/** In a sentence or two: how old the last copy of this desk is, and where. */
export function CopyWords({ savedAt }: { savedAt: string | null | undefined }) {
  const now = useNow(30_000);
  const places = useCopyPlaces();
  if (!places) return null;
  const kept = [places.folder, places.server].filter((place) => place !== null);
  const newest = kept
    .filter(({ lastAt }) => lastAt !== null)
    .sort((a, b) => (b.lastAt ?? '').localeCompare(a.lastAt ?? ''))[0];
  // That a pairing was ended is no fault.
  const broken = kept.find(({ fault }) => fault !== null && fault !== 'unpaired');
  return (
    <>
      {newest?.lastAt && (
        <>
          Last copy {ageWords(newest.lastAt, now)},{' '}
          {newest.key === 'folder' ? `in the folder ${newest.handle.name}` : 'on the server'}
          {notCopiedSince(newest) === null && '; nothing has changed since'}.{' '}
        </>
      )}
      {broken?.fault && (
        <strong>
          {broken.key === 'folder' ? `The folder ${broken.handle.name}` : 'The server'} gets no backups:{' '}
          {copyFaultWords[broken.fault]}.{' '}
        </strong>
      )}
      {!newest && kept.length === 0 && 'No automatic backups yet. '}
      {savedAt ? `Saved to a file ${dayAndTime(savedAt, now)}.` : !newest && 'Not saved to a file yet.'}
    </>
  );
}
