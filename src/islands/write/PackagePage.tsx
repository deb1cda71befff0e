import { Button, Checkbox, Progress } from '@mantine/core';
import { FileButton } from '@/ui/FileButton';
import { useState, type DragEvent } from 'react';
import type { ReadPackage } from '@/core/formats/qti/readPackage';
import { kindOf } from '@/core/kinds';
import type { PaperContent } from '@/core/model/paper';
import { paperPoints } from '@/core/model/parts';
import { plainText } from '@/core/basics/richWords';
import { bringPapers } from '@/store/papers';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { counted, pointsWords } from '@/words/format';
import { LossList } from '@/ui/LossList';
import { refusalWords } from '@/words/losses';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import type { PackageReply } from '@/workers/qti.worker';
import type { Work } from '@/workers/stoppable';
import { readPackage, withKeptPictures } from './packages';
import styles from './package.module.css';

/** Papers from a QTI package: read in a worker, looked at, and only then kept. */
export function PackagePage() {
  return (
    <DeskReady>
      <Package />
    </DeskReady>
  );
}

interface Reading {
  work: Work<PackageReply>;
  done: number;
  of: number;
}

function Package() {
  const [reading, setReading] = useState<Reading | null>(null);
  const [reply, setReply] = useState<PackageReply | null>(null);
  const [name, setName] = useState('');
  const read = async (file: File | null | undefined) => {
    if (!file) return;
    setReply(null);
    setName(file.name);
    const work = readPackage(file, (done, of) => setReading((before) => before && { ...before, done, of }));
    setReading({ work, done: 0, of: 0 });
    setReply(await act(work.result));
    setReading(null);
  };
  const dropped = (event: DragEvent) => {
    event.preventDefault();
    void read(event.dataTransfer.files[0]);
  };
  return (
    <TwoColumns
      marginLabel="About packages"
      margin={
        <MarginBlock title="What can be imported">
          <p>
            QTI packages of version 3.0, 2.1 and 2.2: a zip with imsmanifest.xml, tests, items and pictures.
            Each test becomes a paper; items outside any test become one more.
          </p>
          <p className={styles.soft}>
            Anything that can’t be imported is listed before you import. A package that could do harm is
            refused.
          </p>
          <a href="/">Back to the desk</a>
        </MarginBlock>
      }
    >
      <h1 className={styles.title}>Import papers</h1>
      <div className={styles.drop} onDragOver={(event) => event.preventDefault()} onDrop={dropped}>
        <FileButton
          accept=".zip,application/zip"
          onChange={(file) => void read(file)}
          inputProps={{ 'aria-label': 'Choose package' }}
        >
          {(button) => (
            <Button {...button} variant={reply && 'read' in reply ? 'default' : 'filled'}>
              Choose package
            </Button>
          )}
        </FileButton>
        <span className={styles.soft}>or drop it here</span>
      </div>
      {reading && (
        <div className={styles.reading} role="status">
          <span>{reading.of > 0 ? `Reading question ${reading.done} of ${reading.of}` : 'Unpacking'}</span>
          <Progress value={reading.of > 0 ? (100 * reading.done) / reading.of : 0} aria-label="Read so far" />
          <Button onClick={reading.work.stop}>Stop</Button>
        </div>
      )}
      {reply && 'refused' in reply && <p role="alert">{refusalWords(reply.refused, name)}</p>}
      {reply && 'read' in reply && <Understood read={reply.read} />}
    </TwoColumns>
  );
}

function Understood({ read }: { read: ReadPackage }) {
  const { papers, losses } = read;
  const [left, setLeft] = useState<number[]>([]);
  const taken = papers.filter((_, index) => !left.includes(index));
  const bring = async () => {
    const kept = await act(withKeptPictures({ ...read, papers: taken }));
    if (!kept) return;
    const said = `${counted(taken.length, 'paper')} imported from a package`;
    const done = await act(bringPapers(kept.papers, said, isoNow()));
    if (!done) return;
    if (kept.unread.length > 0)
      return say(`${said}. Left out, because they aren’t readable pictures: ${kept.unread.join(', ')}`, true);
    const [only, ...more] = done.result;
    window.location.assign(only !== undefined && more.length === 0 ? `/papers/${only}` : '/');
  };
  return (
    <>
      {papers.map((paper, index) => (
        <ReadPaper
          key={index}
          paper={paper}
          taken={!left.includes(index)}
          take={(on) => setLeft(on ? left.filter((each) => each !== index) : [...left, index])}
        />
      ))}
      <LossList losses={losses} label="Not imported, or only in part" />
      {losses.length === 0 && <p className={styles.soft}>Everything in it can be imported.</p>}
      <Button variant="filled" disabled={taken.length === 0} onClick={() => void bring()}>
        Import {counted(taken.length, 'paper')}
      </Button>
    </>
  );
}

function ReadPaper({
  paper,
  taken,
  take,
}: {
  paper: PaperContent;
  taken: boolean;
  take: (on: boolean) => void;
}) {
  const { questions } = paper;
  const keyless = questions.filter(
    (question) => kindOf(question).scoredBy === 'key' && !kindOf(question).hasKey(question),
  );
  return (
    <section className={styles.paper} aria-label={paper.title}>
      <Checkbox
        label={<strong>{paper.title}</strong>}
        checked={taken}
        onChange={(event) => take(event.currentTarget.checked)}
      />
      <p className={styles.soft}>
        {counted(questions.length, 'question')}, {pointsWords(paperPoints(paper))}
        {paper.parts && `, ${counted(paper.parts.length, 'part')}`}
        {keyless.length > 0 && `, ${keyless.length} without a key`}
      </p>
      <ol className={styles.questions}>
        {questions.slice(0, 6).map((question) => (
          <li key={question.id}>
            {plainText(question.stem).slice(0, 140) || 'No text'}{' '}
            <span className={styles.soft}>
              {kindOf(question).label.toLowerCase()}
              {kindOf(question).keyText(question) && ` · ${kindOf(question).keyText(question).slice(0, 80)}`}
            </span>
          </li>
        ))}
      </ol>
      {questions.length > 6 && (
        <p className={styles.soft}>and {counted(questions.length - 6, 'more question')}</p>
      )}
    </section>
  );
}
