import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { FileRef } from '@/core/basics/file';
import { Rect } from '@/core/basics/rect';
import type { AnswerPaper } from '@/core/model/answerPaper';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { makeForeign, type NewQuestion } from '@/store/answerPapers';
import { newId } from '@/store/ids';
import type { OnPaper } from '@/store/onPaper';
import { isoNow } from '@/ui/clock';
import { FileButton } from '@/ui/FileButton';
import { blankPages } from '@/workers/scans';
import { counted } from '@/words/format';
import { refusalWords } from '@/words/losses';
import { RegionPage, type Drawn } from './RegionPage';
import styles from './onPaper.module.css';

/** What the name stands under, beside the ids of questions; and what makes a new question. */
const nameOf = '#name';
const newOf = '#new';

interface ForeignPaperProps {
  sitting: SittingData;
  on: OnPaper;
  done: () => void;
}

/** A paper that was printed elsewhere: its blank pages, on which is drawn where the name and each answer stand. */
export function ForeignPaper({ sitting, on, done }: ForeignPaperProps) {
  const [blanks, setBlanks] = useState<FileRef[]>([]);
  const [fault, setFault] = useState('');
  const [working, setWorking] = useState(false);
  const [regions, setRegions] = useState<Drawn[]>([]);
  const [page, setPage] = useState(1);
  const [what, setWhat] = useState(nameOf);
  const [name, setName] = useState('');
  const [fresh, setFresh] = useState<NewQuestion[]>([]);
  const questions = [...sitting.questions, ...fresh];
  const numbers = numbersOf(questions);
  // Once it is sat, a paper stays as it is.
  const canGrow = sitting.sitting.paperVersion === null;
  const labelOf = (id: string) =>
    id === nameOf ? 'Name' : id === newOf ? 'a new question' : `Question ${numbers.get(id) ?? ''}`;
  const take = async (files: File[]) => {
    setFault('');
    setWorking(true);
    const read = await act(blankPages(files).result);
    setWorking(false);
    if (!read) return;
    if ('refused' in read) setFault(refusalWords(read.refused, files[0]?.name));
    else setBlanks(read.read);
  };
  const put = (at: Rect) => {
    const of = what === newOf ? newId() : what;
    if (what === newOf) setFresh([...fresh, { id: of, stem: '', points: 1 }]);
    setRegions([...regions, { id: newId(), of, page, at }]);
    if (what === newOf) return;
    // The name once; then question by question.
    const all = [nameOf, ...questions.map(({ id }) => id), ...(canGrow ? [newOf] : [])];
    const next = all[all.indexOf(what) + 1];
    if (next !== undefined) setWhat(next);
  };
  const remove = (id: string) => {
    const left = regions.filter((each) => each.id !== id);
    setRegions(left);
    setFresh(fresh.filter((question) => left.some(({ of }) => of === question.id)));
  };
  const change = (id: string, part: Partial<NewQuestion>) =>
    setFresh(fresh.map((each) => (each.id === id ? { ...each, ...part } : each)));
  const others = on.prints.filter((print) => print.foreign);
  const copyFrom = (print: AnswerPaper) => {
    const copied = print.pages.flatMap((each, index) =>
      each.map(({ x, y, w, h, questionId }): Drawn => ({
        ...{ id: newId(), of: questionId, page: index + 1, at: { x, y, w, h } },
      })),
    );
    const { page: namePage = 1, ...nameAt } = print.foreign?.name ?? {};
    const named = Rect.safeParse(nameAt);
    const head: Drawn[] = named.success ? [{ id: newId(), of: nameOf, page: namePage, at: named.data }] : [];
    setRegions([...head, ...copied.filter((each) => each.page <= blanks.length)]);
  };
  const without = questions.filter(({ id }) => !regions.some(({ of }) => of === id));
  const keep = async () => {
    const nameRegion = regions.find(({ of }) => of === nameOf);
    const kept = await act(
      makeForeign(
        {
          ...{ sittingId: sitting.sitting.id, name: name.trim(), blanks },
          nameAt: nameRegion ? { ...nameRegion.at, page: nameRegion.page } : null,
          fresh: fresh.map((each) => ({
            ...each,
            stem: each.stem.trim() || `Question ${numbers.get(each.id) ?? ''}`,
          })),
          regions: blanks.map((_, index) =>
            regions
              .filter(({ of, page: on }) => of !== nameOf && on === index + 1)
              .map(({ id, of, at }) => ({ ...at, questionId: of, part: id, box: null })),
          ),
        },
        isoNow(),
      ),
    );
    if (kept) done();
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
          <Button onClick={done}>Cancel</Button>
          {working && <span role="status">Reading the blank paper…</span>}
          {fault && <p role="alert">{fault}</p>}
        </div>
      ) : (
        <>
          <div className={styles.row}>
            <NativeSelect
              aria-label="What the next region is"
              value={what}
              onChange={(event) => setWhat(event.currentTarget.value)}
              data={[
                { value: nameOf, label: 'Name' },
                ...questions.map(({ id }) => ({
                  value: id,
                  label: `${labelOf(id)}${regions.some(({ of }) => of === id) ? ' ✓' : ''}`,
                })),
                ...(canGrow ? [{ value: newOf, label: 'A new question' }] : []),
              ]}
            />
            <Button onClick={() => put({ x: 25, y: 40 + ((regions.length * 32) % 220), w: 160, h: 28 })}>
              Put a region for {labelOf(what)}
            </Button>
            {blanks.length > 1 && (
              <>
                <Button size="compact-sm" disabled={page === 1} onClick={() => setPage(page - 1)}>
                  Page before
                </Button>
                <span role="status">
                  Page {page} of {blanks.length}
                </span>
                <Button size="compact-sm" disabled={page === blanks.length} onClick={() => setPage(page + 1)}>
                  Next page
                </Button>
              </>
            )}
          </div>
          <p className={styles.soft} id="region-keys">
            Draw with the mouse, or put a region and move it with the arrow keys; with Shift they change its
            size, Delete removes it.
          </p>
          <RegionPage
            fileId={blank.id}
            page={page}
            regions={regions}
            labelOf={labelOf}
            put={put}
            change={(id, at) => setRegions(regions.map((each) => (each.id === id ? { ...each, at } : each)))}
            remove={remove}
          />
          {regions.length === 0 &&
            others.map((print) => (
              <div key={print.id}>
                <Button size="compact-sm" onClick={() => copyFrom(print)}>
                  Copy the regions of {print.name || 'the paper printed elsewhere'}
                </Button>
              </div>
            ))}
          {fresh.map(({ id, stem, points }) => (
            <div key={id} className={styles.row}>
              <TextInput
                label={`What question ${numbers.get(id) ?? ''} asks`}
                placeholder={`Question ${numbers.get(id) ?? ''}`}
                w="min(360px, 100%)"
                value={stem}
                onChange={(event) => change(id, { stem: event.currentTarget.value })}
              />
              <NumberInput
                label="Points"
                aria-label={`Points of question ${numbers.get(id) ?? ''}`}
                w={90}
                min={0}
                max={1000}
                decimalScale={2}
                value={points}
                onChange={(value) => typeof value === 'number' && change(id, { points: value })}
              />
            </div>
          ))}
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
