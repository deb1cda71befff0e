import { Button } from '@mantine/core';
import { useState } from 'react';
import type { AnswerPaper } from '@/core/model/answerPaper';
import { byRegister, fullName } from '@/core/model/names';
import type { SittingData } from '@/desk/useSitting';
import { fileNameOf } from '@/core/formats/fileName';
import { removePrint } from '@/store/answerPapers';
import type { OnPaper } from '@/store/onPaper';
import { act } from '@/desk/act';
import { isoNow } from '@/ui/clock';
import { saveBlob, saveFile } from '@/ui/saveFile';
import { MarginBlock } from '@/ui/TwoColumns';
import { papersAgain, stickers } from '@/workers/prints';
import { counted, dayAndTime } from '@/words/format';
import styles from './onPaper.module.css';

interface PrintsBlockProps {
  sitting: SittingData;
  on: OnPaper;
  making: 'ours' | 'foreign' | null;
  make: (what: 'ours' | 'foreign') => void;
}

/** What was printed, to be printed again. */
export function PrintsBlock({ sitting, on, making, make }: PrintsBlockProps) {
  const scanned = new Set(on.scans.flatMap(({ place }) => place?.printId ?? []));
  return (
    <MarginBlock title="Answer papers">
      <ul className={styles.plain}>
        {on.prints.map((print) => (
          <li key={print.id}>
            <Printed print={print} removable={!scanned.has(print.id)} />
          </li>
        ))}
      </ul>
      <Button aria-expanded={making === 'ours'} onClick={() => make('ours')}>
        Make more
      </Button>
      <Button aria-expanded={making === 'foreign'} onClick={() => make('foreign')}>
        Use a paper printed elsewhere
      </Button>
      {on.prints.some((print) => print.foreign) && (
        <Button onClick={() => void saveStickers(sitting)}>
          Save code stickers of {counted(sitting.seats.length, 'student')}
        </Button>
      )}
    </MarginBlock>
  );
}

/** Whose code sticks on a paper that was printed elsewhere, it is. */
async function saveStickers({ sitting, seats }: SittingData): Promise<void> {
  const people = seats
    .map(({ student }) => student)
    .sort(byRegister)
    .map((student) => ({ id: student.id, name: fullName(student) }));
  const made = await act(stickers(sitting.title, people).result);
  if (made) saveBlob(`${fileNameOf(`${sitting.title} code stickers`)}.pdf`, made);
}

function Printed({ print, removable }: { print: AnswerPaper; removable: boolean }) {
  const [working, setWorking] = useState<(() => void) | null>(null);
  const again = async () => {
    const { result, stop } = papersAgain(print.id, () => undefined);
    setWorking(() => stop);
    const made = await act(result);
    setWorking(null);
    if (made) saveBlob(`${fileNameOf(print.name || 'answer papers')}.pdf`, made.file);
  };
  const named = print.name || (print.foreign ? 'Printed elsewhere' : 'As in the paper');
  return (
    <>
      <div>
        <strong>{named}</strong>: {counted(print.copies.length, 'paper')} of{' '}
        {counted(print.pages.length, 'page')}
      </div>
      <div className={styles.soft}>made {dayAndTime(print.at, Date.now())}</div>
      <div className={styles.row}>
        {print.foreign ? null : working ? (
          <Button size="compact-sm" onClick={working}>
            Stop
          </Button>
        ) : (
          <Button size="compact-sm" aria-label={`Save the PDF again: ${named}`} onClick={() => void again()}>
            Save the PDF again
          </Button>
        )}
        <Button
          size="compact-sm"
          aria-label={`Save its places: ${named}`}
          onClick={() =>
            saveFile(
              `${fileNameOf(print.name || 'answer papers')}.json`,
              'application/json',
              JSON.stringify(print),
            )
          }
        >
          Save its places
        </Button>
        {removable && (
          <Button
            size="compact-sm"
            aria-label={`Remove ${named}`}
            onClick={() => void act(removePrint(print, isoNow()))}
          >
            Remove
          </Button>
        )}
      </div>
    </>
  );
}
