import { Button } from '@mantine/core';
import { useEffect, useState } from 'react';
import { beginNewVersion, onNewVersion } from '@/offline/kept';
import styles from './Shell.module.css';

/** After a page is opened, what it is opened for takes itself in hand. */
const settledMs = 1_500;

/** Says that a newer Gribbet is here. Nothing is taken from under anybody's hands: it begins when it is told to. */
export function NewVersion() {
  const [waits, setWaits] = useState(false);
  const [held, setHeld] = useState(false);
  useEffect(() => {
    const opened = performance.now();
    return onNewVersion(() => {
      // Found as the desk is opened, it begins by itself, unless something is being done in another tab.
      const atOnce = window.location.pathname === '/' && performance.now() - opened < settledMs;
      if (atOnce) setTimeout(() => void beginNewVersion().then((began) => setWaits(!began)), settledMs);
      else setWaits(true);
    });
  }, []);
  if (!waits) return null;
  return (
    <p role="status" className={styles.newVersion}>
      <span>
        {held
          ? 'Something is still being written, marked or sat in another tab or here. Close it first.'
          : 'A new version of Gribbet is here. It starts when nothing is being written, marked or sat.'}
      </span>
      <Button size="compact-sm" onClick={() => void beginNewVersion().then((began) => setHeld(!began))}>
        Start the new version
      </Button>
    </p>
  );
}
