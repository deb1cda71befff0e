import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { FileRef } from '@/core/basics/file';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { makeForeign } from '@/store/answerPapers';
import type { OnPaper } from '@/store/onPaper';
import { isoNow } from '@/ui/clock';
import { FileButton } from '@/ui/FileButton';
import { blankPages } from '@/workers/scans';
import { counted } from '@/words/format';
import { refusalWords } from '@/words/losses';
import { RegionPage } from './RegionPage';
import { nameOf, newOf, useRegions, type Regions } from './useRegions';
import styles from './onPaper.module.css';

interface ForeignPaperProps {
  sitting: SittingData;
  on: OnPaper;
  done: () => void;
}

/** A paper that was printed elsewhere: its blank pages, on which is drawn where the name and each answer stand. */
export function ForeignPaper({ sitting, on, done }: ForeignPaperProps) {
  const [blanks, setBlanks] = useState<FileRef[]>([]);
  const [page, setPage] = useState(1);
  const [name, setName] = useState('');
  const drawn = useRegions(sitting);
  const { regions, questions, numbers } = drawn;
  const others = on.prints.filter((print) => print.foreign);
  const without = questions.filter(({ id }) => !regions.some(({ of }) => of === id));
  const keep = async () => {
    const about = { sittingId: sitting.sitting.id, name: name.trim(), blanks };
    if (await act(makeForeign({ ...about, ...drawn.made(blanks) }, isoNow()))) done();
  };
  const blank = blanks[page - 1];
  return (
    <section className={styles.foreign} aria-label="A paper printed elsewhere">
      <h2>A paper printed elsewhere</h2>
      <p className={styles.soft}>
        Choose the blank paper as PDF or pictures, and draw where the name and each answer stand: once, for
        all scans. A pile of scans is cut into papers when it is imported: by pages, blank sheets, first pages
        or code stickers.
      </p>
      {!blank ? (
        <ChooseBlank chosen={setBlanks} cancel={done} />
      ) : (
        <>
          <RegionBar drawn={drawn} page={page} pages={blanks.length} goTo={setPage} />
          <p className={styles.soft} id="region-keys">
            Draw with the mouse, or put a region and move it with the arrow keys; with Shift they change its
            size, Delete removes it.
          </p>
          <RegionPage
            fileId={blank.id}
            page={page}
            regions={regions}
            labelOf={drawn.labelOf}
            put={(at) => drawn.put(page, at)}
            change={drawn.move}
            remove={drawn.remove}
          />
          {regions.length === 0 &&
            others.map((print) => (
              <div key={print.id}>
                <Button size="compact-sm" onClick={() => drawn.copyFrom(print, blanks.length)}>
                  Copy the regions of {print.name || 'the paper printed elsewhere'}
                </Button>
              </div>
            ))}
          <FreshQuestions drawn={drawn} />
          <TextInput
            label="What this paper is called"
            w={220}
            maxLength={60}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <div className={styles.row}>
            <Button
              variant="filled"
              disabled={without.length === questions.length}
              onClick={() => void keep()}
            >
              Keep {counted(regions.length, 'region')}
            </Button>
            <Button onClick={done}>Cancel</Button>
            {without.length > 0 && (
              <span className={styles.soft}>
                Without a region: {without.map(({ id }) => numbers.get(id)).join(', ')}. They are not asked
                for on paper.
              </span>
            )}
          </div>
        </>
      )}
    </section>
  );
}

/** Asks for the blank paper. */
function ChooseBlank({ chosen, cancel }: { chosen: (pages: FileRef[]) => void; cancel: () => void }) {
  const [fault, setFault] = useState('');
  const [working, setWorking] = useState(false);
  const take = async (files: File[]) => {
    setFault('');
    setWorking(true);
    const read = await act(blankPages(files).result);
    setWorking(false);
    if (!read) return;
    if ('refused' in read) setFault(refusalWords(read.refused, files[0]?.name));
    else chosen(read.read);
  };
  return (
    <div className={styles.row}>
      <FileButton
        multiple
        accept=".pdf,.jpg,.jpeg,.png,.tif,.tiff,.webp"
        onChange={(files) => void take(files)}
        inputProps={{ 'aria-label': 'Blank paper' }}
      >
        {(button) => (
          <Button {...button} variant="filled" disabled={working}>
            Choose the blank paper
          </Button>
        )}
      </FileButton>
      <Button onClick={cancel}>Cancel</Button>
      {working && <span role="status">Reading the blank paper…</span>}
      {fault && <p role="alert">{fault}</p>}
    </div>
  );
}

interface RegionBarProps {
  drawn: Regions;
  page: number;
  pages: number;
  goTo: (page: number) => void;
}

/** What the next region is, a region put by a button, and the pages. */
function RegionBar({ drawn, page, pages, goTo }: RegionBarProps) {
  const { regions, questions, what, labelOf } = drawn;
  return (
    <div className={styles.row}>
      <NativeSelect
        aria-label="What the next region is"
        value={what}
        onChange={(event) => drawn.setWhat(event.currentTarget.value)}
        data={[
          { value: nameOf, label: 'Name' },
          ...questions.map(({ id }) => ({
            value: id,
            label: `${labelOf(id)}${regions.some(({ of }) => of === id) ? ' ✓' : ''}`,
          })),
          ...(drawn.canGrow ? [{ value: newOf, label: 'A new question' }] : []),
        ]}
      />
      <Button
        onClick={() => drawn.put(page, { x: 25, y: 40 + ((regions.length * 32) % 220), w: 160, h: 28 })}
      >
        Put a region for {labelOf(what)}
      </Button>
      {pages > 1 && (
        <>
          <Button size="compact-sm" disabled={page === 1} onClick={() => goTo(page - 1)}>
            Page before
          </Button>
          <span role="status">
            Page {page} of {pages}
          </span>
          <Button size="compact-sm" disabled={page === pages} onClick={() => goTo(page + 1)}>
            Next page
          </Button>
        </>
      )}
    </div>
  );
}

/** What the questions ask that are made of regions, and their points. */
function FreshQuestions({ drawn: { fresh, numbers, changeQuestion } }: { drawn: Regions }) {
  return fresh.map(({ id, stem, points }) => (
    <div key={id} className={styles.row}>
      <TextInput
        label={`What question ${numbers.get(id) ?? ''} asks`}
        placeholder={`Question ${numbers.get(id) ?? ''}`}
        w="min(360px, 100%)"
        value={stem}
        onChange={(event) => changeQuestion(id, { stem: event.currentTarget.value })}
      />
      <NumberInput
        label="Points"
        aria-label={`Points of question ${numbers.get(id) ?? ''}`}
        w={90}
        min={0}
        max={1000}
        decimalScale={2}
        value={points}
        onChange={(value) => typeof value === 'number' && changeQuestion(id, { points: value })}
      />
    </div>
  ));
}
