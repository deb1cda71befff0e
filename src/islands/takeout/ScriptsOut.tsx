import { Button, Progress, Radio } from '@mantine/core';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { fileNameOf } from '@/core/formats/fileName';
import type { PrintForm } from '@/core/formats/scripts/printedScript';
import { inView } from '@/core/model/names';
import { isIn } from '@/core/seats/seats';
import { act, say } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { PdfPages } from '@/ui/PdfPages';
import { saveBlob } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import { makeScripts, type ScriptsMade, type ScriptsProgress } from '@/workers/makeScripts';
import type { Work } from '@/workers/stoppable';
import styles from './takeout.module.css';

interface ScriptsOutProps {
  sitting: SittingData;
  group: string;
  choice: ReactNode;
  elsewhere: ReactNode;
}

/** Marked scripts as PDF: one each in a zip, or one for printing; the first is shown. */
export function ScriptsOut({ sitting, group, choice, elsewhere }: ScriptsOutProps) {
  const [form, setForm] = useState<PrintForm>('marked');
  const [progress, setProgress] = useState<ScriptsProgress | null>(null);
  const work = useRef<Work<ScriptsMade> | null>(null);
  useEffect(() => () => work.current?.stop(), []);
  const seats = sitting.seats.filter((seat) => isIn(seat) && inView(seat.student, group));
  const sittingId = sitting.sitting.id;
  const unmarked = seats.filter(({ scorecard }) => !scorecard?.final).length;
  const studentIds = seats.map(({ student }) => student.id);
  const make = async (as: 'pdf' | 'zip') => {
    setProgress({ done: 0, all: studentIds.length });
    work.current = makeScripts({ sittingId, studentIds, form, as, now: Date.now() }, setProgress);
    const made = await act(work.current.result);
    setProgress(null);
    if (!made) return;
    saveBlob(`${fileNameOf(`scripts ${sitting.sitting.title}`)}.${as}`, made.file);
    const letters =
      made.missing.length > 0 ? `; no font here for ${made.missing.slice(0, 10).join(' ')}` : '';
    say(`${counted(made.scripts, 'script')} saved as ${as.toUpperCase()}${letters}`);
  };
  const sample = useSample(sittingId, studentIds[0] ?? '', form);
  if (seats.length === 0)
    return (
      <TwoColumns
        marginLabel="What is exported"
        margin={
          <>
            {choice}
            {elsewhere}
          </>
        }
      >
        <EmptyState title="Nothing is handed in yet" />
      </TwoColumns>
    );
  return (
    <TwoColumns
      marginLabel="What is exported"
      margin={
        <>
          {choice}
          <MarginBlock title="Scripts">
            <div className={styles.fields}>
              <Radio.Group
                aria-label="What of the scripts"
                value={form}
                onChange={(value) => setForm(value as PrintForm)}
              >
                <div className={styles.fields}>
                  <Radio size="sm" value="marked" label="whole, with marks and comments" />
                  <Radio size="sm" value="answers" label="answers alone, unmarked" />
                  <Radio size="sm" value="first" label="first pages: totals and points" />
                </div>
              </Radio.Group>
              {unmarked > 0 && form !== 'answers' && (
                <p>{counted(unmarked, 'script')} not wholly marked: the total says what it is of so far.</p>
              )}
              {progress ? (
                <>
                  <Progress
                    aria-label="Scripts made"
                    value={progress.all > 0 ? (progress.done / progress.all) * 100 : 0}
                  />
                  <p role="status">
                    {progress.done} of {progress.all} scripts
                  </p>
                  <Button onClick={() => work.current?.stop()}>Stop</Button>
                </>
              ) : (
                <>
                  <Button variant="filled" onClick={() => void make('zip')}>
                    Save {counted(seats.length, 'PDF', 'PDFs')} in a zip
                  </Button>
                  <Button onClick={() => void make('pdf')}>
                    Save one PDF of {counted(seats.length, 'script')}
                  </Button>
                </>
              )}
            </div>
          </MarginBlock>
          {elsewhere}
        </>
      }
    >
      {sample ? <PdfPages bytes={sample} label="The first script" /> : <p>Laying out the first script…</p>}
    </TwoColumns>
  );
}

/** The first script laid out; null while it is. */
function useSample(sittingId: string, studentId: string, form: PrintForm): Uint8Array<ArrayBuffer> | null {
  const [pdf, setPdf] = useState<Uint8Array<ArrayBuffer> | null>(null);
  useEffect(() => {
    if (!studentId) return undefined;
    let here = true;
    const made = makeScripts(
      { sittingId, studentIds: [studentId], form, as: 'pdf', now: Date.now() },
      () => undefined,
    );
    made.result.then(
      async ({ file }) => here && setPdf(new Uint8Array(await file.arrayBuffer())),
      // The button says what is wrong.
      () => undefined,
    );
    return () => {
      here = false;
      made.stop();
    };
  }, [sittingId, studentId, form]);
  return pdf;
}
