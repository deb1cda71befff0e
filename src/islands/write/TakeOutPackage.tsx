import { Button, Progress } from '@mantine/core';
import { useState } from 'react';
import type { Loss } from '@/core/formats/qti/losses';
import type { Paper } from '@/core/model/paper';
import { act, say } from '@/desk/act';
import { counted } from '@/words/format';
import { LossList } from '@/ui/LossList';
import { fileNameOf } from '@/core/formats/fileName';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock } from '@/ui/TwoColumns';
import { writePackage } from './packages';

/** The paper as a QTI package, and what of it others will not read. */
export function TakeOutPackage({ paper }: { paper: Paper }) {
  const [writing, setWriting] = useState<{ stop: () => void; done: number } | null>(null);
  const [losses, setLosses] = useState<Loss[] | null>(null);
  const save = async () => {
    const work = writePackage(paper, (done) => setWriting((before) => before && { ...before, done }));
    setWriting({ stop: work.stop, done: 0 });
    const written = await act(work.result);
    setWriting(null);
    if (!written) return;
    saveFile(`${fileNameOf(paper.title)}.zip`, 'application/zip', written.bytes);
    setLosses(written.losses);
    say(`${counted(paper.questions.length, 'question')} exported as a package`);
  };
  return (
    <MarginBlock title="Export as a QTI package">
      <p>All questions with their keys, points, parts, comments and pictures, in QTI 3.0.</p>
      {writing ? (
        <>
          <Progress value={(100 * writing.done) / paper.questions.length} aria-label="Written so far" />
          <Button onClick={writing.stop}>Stop</Button>
        </>
      ) : (
        <Button disabled={paper.questions.length === 0} onClick={() => void save()}>
          Export package
        </Button>
      )}
      {losses && losses.length === 0 && <p>Other programs can read all of it.</p>}
      {losses && <LossList losses={losses} label="What other programs won’t read" />}
    </MarginBlock>
  );
}
