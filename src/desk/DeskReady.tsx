import { useEffect, type ReactNode } from 'react';
import { noteChanges } from '@/sync/copyPlaces';
import { pairing } from '@/store/pairing';
import { keepCopies } from '@/workers/copies';
import { keepConnected } from '@/workers/connection';
import { Shell } from './Shell';
import type { Shortcut } from './Help';
import { FilesFrom } from '../ui/files';
import { later } from '../ui/later';
import { deskFiles } from './deskFiles';
import { beginTab } from './undoLast';
import { useDeskState } from './begun';

// Whoever reaches it brings back a whole desk: no other page carries that.
const DeskGone = later(
  async () => (await import('./DeskGone')).DeskGone,
  'Your desk is no longer in this browser, and what brings it back couldn’t be loaded. Load the page again.',
);

const copiesAfterMs = 2_000;

/** The shell with a page in it, once the desk is laid out. */
export function DeskReady({
  children,
  shortcuts,
  strip,
}: {
  children: ReactNode;
  shortcuts?: Shortcut[];
  strip?: ReactNode;
}) {
  const state = useDeskState();
  const begun = state === 'here';
  useEffect(beginTab, []);
  // A paired desk keeps the line to the classroom server from whatever page is open.
  useEffect(() => {
    if (!begun) return;
    void pairing().then((line) => line && keepConnected());
    const noted = noteChanges();
    // What is on the page comes first.
    const timer = setTimeout(keepCopies, copiesAfterMs);
    return () => {
      clearTimeout(timer);
      noted();
    };
  }, [begun]);
  return (
    <FilesFrom files={deskFiles}>
      <Shell {...(shortcuts && { shortcuts })} strip={strip}>
        {begun ? children : state === 'gone' ? <DeskGone /> : <p>Laying out the desk…</p>}
      </Shell>
    </FilesFrom>
  );
}
