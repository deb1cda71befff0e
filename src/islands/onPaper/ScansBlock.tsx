import { Anchor, Button, NativeSelect } from '@mantine/core';
import { useState } from 'react';
import type { AnswerPaper } from '@/core/model/answerPaper';
import type { OnPaper } from '@/store/onPaper';
import { act, say } from '@/desk/act';
import { thisTab } from '@/desk/undoLast';
import { isoNow } from '@/ui/clock';
import { FileButton } from '@/ui/FileButton';
import { saveBlob } from '@/ui/saveFile';
import { MarginBlock } from '@/ui/TwoColumns';
import { makeUpScans } from '@/workers/madeUpScans';
import { papersAgain, testSheet } from '@/workers/prints';
import { readScans, type FileRead, type ScansProgress } from '@/workers/scans';
import { Stopped } from '@/workers/stoppable';
import { counted } from '@/words/format';
import { refusalWords } from '@/words/losses';
import { cutWords, testSheetWords, testVerdictWords } from '@/words/onPaper';
import { pileCuts, type PileCut } from '@/core/intake/paper/piles';
import styles from './onPaper.module.css';

interface ScansBlockProps {
  sittingId: string;
  on: OnPaper;
}

/** Brings scanned files in: chosen or dropped, read in the background, stopped and gone on with. */
export function ScansBlock({ sittingId, on }: ScansBlockProps) {
  const foreign = on.prints.filter((print) => print.foreign);
  const ours = on.prints.filter((print) => !print.foreign);
  const [chosen, setChosen] = useState<string | null>(null);
  const of = chosen ?? (ours.length > 0 ? '' : (foreign[0]?.id ?? ''));
  const [cut, setCut] = useState<PileCut>('count');
  const each = foreign.find(({ id }) => id === of)?.pages.length;
  const { at, read, take, tryOut } = useReading(sittingId, ours.at(-1), of ? { printId: of, cut } : null);
  const half = [...new Set(on.halfRead.map(({ from }) => from.file))];
  return (
    <MarginBlock title="Scans">
      <div
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void take([...event.dataTransfer.files]);
        }}
      >
        <p className={styles.soft}>
          PDF, JPEG, PNG, TIFF or a zip of them; pages in any order and either way up. You can drop them here.
        </p>
        {foreign.length > 0 && (
          <NativeSelect
            size="xs"
            label="These scans are"
            value={of}
            onChange={(event) => setChosen(event.currentTarget.value)}
            data={[
              ...(ours.length > 0 ? [{ value: '', label: 'answer papers with codes' }] : []),
              ...foreign.map(({ id, name, pages }) => ({
                value: id,
                label: `${name || 'the paper with regions'}, ${counted(pages.length, 'page')} each`,
              })),
            ]}
          />
        )}
        {each !== undefined && (
          <NativeSelect
            size="xs"
            label="A new paper begins"
            value={cut}
            onChange={(event) => setCut(pileCuts.find((id) => id === event.currentTarget.value) ?? 'count')}
            data={pileCuts.map((value) => ({ value, label: cutWords[value](each) }))}
          />
        )}
        {at ? (
          <div className={styles.reading}>
            <span role="status">
              {at.file}: page {Math.min(at.done + 1, at.all)} of {at.all}
            </span>
            <progress value={at.done} max={at.all} aria-label={`Reading ${at.file}`} />
            <Button onClick={at.stop}>Stop</Button>
          </div>
        ) : (
          <FileButton
            multiple
            accept=".pdf,.jpg,.jpeg,.png,.tif,.tiff,.webp,.zip"
            onChange={(files) => void take(files)}
            inputProps={{ 'aria-label': 'Scanned files' }}
          >
            {(button) => (
              <Button
                {...button}
                variant={on.prints.length > 0 && on.scans.length === 0 ? 'filled' : 'default'}
              >
                Import scans
              </Button>
            )}
          </FileButton>
        )}
      </div>
      {!at && (
        <p className={styles.soft}>
          Not sure about your scanner?{' '}
          <Anchor
            component="button"
            c="inherit"
            fz="inherit"
            underline="always"
            onClick={() => void saveTestSheet()}
          >
            Save a test sheet
          </Anchor>
          , scan it and import it here.
        </p>
      )}
      {!at && ours.length > 0 && (
        <p className={styles.soft}>
          No printer at hand?{' '}
          <Anchor
            component="button"
            c="inherit"
            fz="inherit"
            underline="always"
            onClick={() => void tryOut()}
          >
            Let a made-up class fill them in
          </Anchor>{' '}
          and save its scans, to try it with.
        </p>
      )}
      {!at &&
        half.map((file) => (
          <p key={file} className={styles.soft}>
            {file} was read up to page {on.halfRead.filter(({ from }) => from.file === file).length}. Choose
            it again to go on.
          </p>
        ))}
      {read.length > 0 && (
        <ul className={styles.plain} role="status">
          {read.map((each, index) => (
            <li key={index}>{readWords(each)}</li>
          ))}
        </ul>
      )}
    </MarginBlock>
  );
}

/**
 * Reads scanned files in the background, with the way to stop it.
 *
 * @param print the papers that a made-up class would fill in
 * @param foreign of which paper printed elsewhere the scans are; null: of papers with codes
 */
function useReading(
  sittingId: string,
  print: AnswerPaper | undefined,
  foreign: Parameters<typeof readScans>[2],
) {
  const [at, setAt] = useState<(ScansProgress & { stop: () => void }) | null>(null);
  const [read, setRead] = useState<FileRead[]>([]);
  const take = async (files: File[]) => {
    if (files.length === 0 || at) return;
    setRead([]);
    const { result, stop } = readScans(sittingId, files, foreign, thisTab(), isoNow(), (now) =>
      setAt({ ...now, stop }),
    );
    setAt({ file: files[0]?.name ?? '', done: 0, all: 1, stop });
    // Files before this one are imported, and of this one what was read is kept.
    const done = await act(result.catch((error: unknown) => stoppedOr(error)));
    setAt(null);
    if (done === 'stopped')
      say('Stopped. The page says what is imported, and what goes on when it is chosen again.');
    else setRead(done ?? []);
  };
  const tryOut = async () => {
    if (!print || at) return;
    setRead([]);
    const step = (doing: string, stop: () => void) => (done: number, all: number) =>
      setAt({ file: doing, done, all, stop });
    const papers = papersAgain(print.id, () => undefined);
    step('Papers', papers.stop)(0, 1);
    const made = await act(papers.result);
    if (!made) return setAt(null);
    const wish = {
      printId: print.id,
      papers: made.file,
      copies: print.copies.length,
      seed: print.copies.length,
    };
    const scanning = makeUpScans(wish, (done, all) => step('Made-up scans', scanning.stop)(done, all));
    const scans = await act(scanning.result);
    setAt(null);
    if (scans) saveBlob('made-up scans.pdf', scans);
  };
  return { at, read, take, tryOut };
}

async function saveTestSheet(): Promise<void> {
  const made = await act(testSheet(testSheetWords).result);
  if (made) saveBlob('test sheet.pdf', made);
}

/** @throws what was no stop */
function stoppedOr(error: unknown): 'stopped' {
  if (error instanceof Stopped) return 'stopped';
  throw error;
}

/** "scans.pdf: 24 pages imported, 2 asked about" */
function readWords({ name, pages, asked, known, between, tests, refused }: FileRead): string {
  if (refused) return refusalWords(refused, name);
  const verdicts = tests.map(testVerdictWords).join(' ');
  if (verdicts && pages === 0) return `${name}: ${verdicts}`;
  const parts = [
    `${counted(pages, 'page')} imported`,
    ...(asked > 0 ? [`${asked} asked about`] : []),
    ...(between > 0 ? [`${counted(between, 'blank sheet')} left out`] : []),
    ...(known > 0 ? [`${known} imported before`] : []),
  ];
  return [`${name}: ${parts.join(', ')}`, verdicts].filter(Boolean).join('. ');
}
