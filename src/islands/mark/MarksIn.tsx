import { Button } from '@mantine/core';
import { useState } from 'react';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { takeMarks, type MarksTaken } from '@/store/sharedMarks';
import { FileButton } from '@/ui/FileButton';
import { isoNow } from '@/ui/clock';
import { counted } from '@/words/format';
import { marksInFiles, type MarksFile } from './marksFiles';
import styles from './markers.module.css';

/** Takes marks in that colleagues sent back as files. */
export function MarksIn({ sitting }: { sitting: SittingData }) {
  const [told, setTold] = useState<{ name: string; words: string; fault: boolean }[]>([]);
  const read = async (files: File[]) => {
    if (files.length === 0) return;
    const found = await act(marksInFiles(files));
    if (!found) return;
    const good = found.flatMap((each) => (each.back ? [{ ...each, back: each.back }] : []));
    const taken = await act(
      takeMarks(
        sitting.sitting.id,
        good.map(({ back }) => back),
        isoNow(),
      ),
    );
    if (!taken) return;
    const became = new Map(good.map(({ back }, at) => [back, taken.result[at]]));
    setTold(found.map((each) => toldOf(each, each.back ? became.get(each.back) : undefined)));
  };
  return (
    <section aria-label="Marks that came back" className={styles.back}>
      <div
        className={styles.drop}
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void read([...event.dataTransfer.files]);
        }}
      >
        <FileButton
          multiple
          onChange={(files) => void read(files)}
          inputProps={{ 'aria-label': 'Choose files with marks' }}
        >
          {(button) => (
            <Button size="sm" {...button}>
              Take marks in
            </Button>
          )}
        </FileButton>
        <span className={styles.soft}>Files that colleagues sent back: choose them, or drop them here</span>
      </div>
      {told.length > 0 && (
        <ul className={styles.told} role="status">
          {told.map(({ name, words, fault }, at) => (
            <li key={at} className={fault ? styles.fault : undefined}>
              {name}: {words}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function toldOf({ name, refused }: MarksFile, taken: MarksTaken | undefined) {
  if (!taken) return { name, words: refused, fault: true };
  const { outcome, marker, marked, leftOut } = taken;
  const out =
    leftOut > 0 ? `; ${counted(leftOut, 'mark')} of other answers or above the maximum left out` : '';
  switch (outcome) {
    case 'gone':
      return { name, words: 'The share it belongs to is no longer on this desk.', fault: true };
    case 'otherSitting':
      return { name, words: `Marks of ${marker} for another sitting: take them in there.`, fault: true };
    case 'pulledBack':
      return {
        name,
        words: `The share of ${marker} was pulled back. Nothing was taken; press “Take again” above first.`,
        fault: true,
      };
    case 'sameAsBefore':
      return {
        name,
        words: `${marker}: nothing new, ${counted(marked, 'answer')} marked${out}.`,
        fault: false,
      };
    default:
      return { name, words: `${marker}: ${counted(marked, 'answer')} marked${out}.`, fault: leftOut > 0 };
  }
}
