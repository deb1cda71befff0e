import { Button } from '@mantine/core';
import { useState } from 'react';
import type { Scan } from '@/core/model/scan';
import { picturesSize } from '@/store/onPaper';
import { throwPicturesAway } from '@/store/scans';
import { act } from '@/desk/act';
import { isoNow } from '@/ui/clock';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted, fileSize } from '@/words/format';
import styles from './onPaper.module.css';

/** What the pictures of the pages take, and a way to be rid of them. */
export function PicturesBlock({ scans }: { scans: readonly Scan[] }) {
  const [sure, setSure] = useState(false);
  const kept = scans.filter(({ pictureGoneAt }) => pictureGoneAt === undefined);
  if (kept.length === 0) return null;
  return (
    <MarginBlock title="Pictures of pages">
      <p className={styles.soft}>
        {counted(kept.length, 'page')}, {fileSize(picturesSize(kept))} in this browser.
      </p>
      {sure ? (
        <>
          <p>What was read and marked stays. Nobody can see the pages any more, and it can’t be undone.</p>
          <div className={styles.row}>
            <Button
              onClick={() => {
                setSure(false);
                void act(throwPicturesAway(kept, isoNow()));
              }}
            >
              Throw away {counted(kept.length, 'picture')}
            </Button>
            <Button onClick={() => setSure(false)}>Keep them</Button>
          </div>
        </>
      ) : (
        <Button onClick={() => setSure(true)}>Throw pictures away</Button>
      )}
    </MarginBlock>
  );
}
