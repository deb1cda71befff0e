import { Button, Checkbox, NumberInput, Radio, TextInput } from '@mantine/core';
import { useState } from 'react';
import { inRegister, withoutPaper } from '@/core/intake/paper/withoutPaper';
import type { OnPaper } from '@/store/onPaper';
import { act } from '@/desk/act';
import { thisTab } from '@/desk/undoLast';
import type { SittingData } from '@/desk/useSitting';
import { isoNow } from '@/ui/clock';
import { saveBlob } from '@/ui/saveFile';
import { WorkLine } from '@/ui/WorkLine';
import { makePapers } from '@/workers/prints';
import { fileNameOf } from '@/core/formats/fileName';
import { counted } from '@/words/format';
import styles from './onPaper.module.css';

interface MakePapersProps {
  sitting: SittingData;
  on: OnPaper;
  done: () => void;
}

/** So many figures of a number are ticked at most. */
const mostDigits = 8;
/** So many papers without a name are made at most. */
const mostNameless = 500;

/** What is to be printed: one for each student, or alike with a field for the name. */
export function MakePapers({ sitting, on, done }: MakePapersProps) {
  const [forWhom, setForWhom] = useState<'students' | 'nameless'>('students');
  const [count, setCount] = useState(30);
  const [mixed, setMixed] = useState(false);
  const [sheet, setSheet] = useState(false);
  const [numbered, setNumbered] = useState(true);
  const [name, setName] = useState('');
  const [work, setWork] = useState<{ stop: () => void; done: number; all: number } | null>(null);
  const students = sitting.seats.map(({ student }) => student).filter(inRegister);
  const without = withoutPaper(on.prints, students);
  const copies =
    forWhom === 'students' ? without.map(({ id }) => id) : Array.from({ length: count }, () => null);
  const digits = Math.min(
    mostDigits,
    Math.max(0, ...students.map(({ number = '' }) => (/^\d+$/.test(number) ? number.length : 0))),
  );
  const make = async () => {
    const wish = {
      ...{ sittingId: sitting.sitting.id, name: name.trim(), mixed, sheet, copies },
      digits: forWhom === 'nameless' && numbered ? digits : 0,
    };
    const { result, stop } = makePapers(wish, thisTab(), isoNow(), (at, all) =>
      setWork({ stop, done: at, all }),
    );
    setWork({ stop, done: 0, all: copies.length });
    const made = await act(result);
    setWork(null);
    if (!made) return;
    saveBlob(`${fileNameOf(`${sitting.sitting.title} ${wish.name}`.trim())}.pdf`, made.file);
    done();
  };
  return (
    <section className={styles.make} aria-label="Make answer papers">
      <h2>Make answer papers</h2>
      <Radio.Group label="For whom" value={forWhom} onChange={(value) => setForWhom(value as typeof forWhom)}>
        <Radio
          value="students"
          label={
            without.length === students.length
              ? `One for each of ${counted(students.length, 'student')}, with the name on every page`
              : `One for each of ${counted(without.length, 'student')} who have none yet, with the name on every page`
          }
          disabled={without.length === 0}
        />
        <Radio value="nameless" label="Alike, with a field for the name" />
      </Radio.Group>
      {forWhom === 'nameless' && (
        <NumberInput
          label="How many"
          w={110}
          min={1}
          max={mostNameless}
          clampBehavior="strict"
          value={count}
          onChange={(value) => typeof value === 'number' && setCount(value)}
        />
      )}
      {forWhom === 'nameless' && digits > 0 && (
        <Checkbox
          label="With boxes for the student number: papers find their students by it"
          checked={numbered}
          onChange={(event) => setNumbered(event.currentTarget.checked)}
        />
      )}
      <Checkbox
        label="Answer sheet alone: boxes and frames by number, beside a paper that students keep"
        checked={sheet}
        onChange={(event) => setSheet(event.currentTarget.checked)}
      />
      <Checkbox
        label="Questions and options in an order of their own, for a second version"
        checked={mixed}
        onChange={(event) => setMixed(event.currentTarget.checked)}
      />
      {(mixed || on.prints.length > 0) && (
        <TextInput
          label="What these papers are called"
          placeholder="Version B"
          w={220}
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
      )}
      {work ? (
        <WorkLine doing="Making" of="paper" done={work.done} all={work.all} stop={work.stop} />
      ) : (
        <div className={styles.row}>
          <Button variant="filled" disabled={copies.length === 0} onClick={() => void make()}>
            Make {counted(copies.length, 'paper')} as PDF
          </Button>
          {on.prints.length > 0 && <Button onClick={done}>Cancel</Button>}
        </div>
      )}
      <p className={styles.soft}>
        The paper is fixed from then on, as when the first student starts. Print at full size, on A4,
        single-sided or double-sided.
      </p>
    </section>
  );
}
