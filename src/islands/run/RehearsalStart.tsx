import { Button, NumberInput } from '@mantine/core';
import { useState } from 'react';
import type { Paper } from '@/core/model/paper';
import type { SittingSettings } from '@/core/sittings/settings';
import { setUpRehearsal } from '@/store/rehearsal';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './run.module.css';

/** A made-up class sits the paper with these settings, to try out paper, live view, marking and figures. */
export function RehearsalStart({ paper, settings }: { paper: Paper; settings: SittingSettings }) {
  const [students, setStudents] = useState(24);
  const begin = async () => {
    const { oneByOne, noBack, shuffle, after, practice, attempts, counts } = settings;
    const manner = { oneByOne, noBack, shuffle, after, practice, attempts, counts };
    const lengthMs = settings.timeLimitMs ?? 30 * 60_000;
    const wish = { students, lengthMs, seed: 1 };
    const id = await act(setUpRehearsal(paper.id, manner, wish, isoNow()));
    if (id) window.location.assign(`/sittings/${id}/run`);
  };
  return (
    <MarginBlock title="Rehearse first">
      <p className={styles.soft}>
        A made-up class sits it in the background, apart from your students. You can delete it without trace.
      </p>
      <div className={styles.row}>
        <NumberInput
          aria-label="Made-up students"
          size="sm"
          w="6rem"
          min={1}
          max={600}
          allowDecimal={false}
          value={students}
          onChange={(value) => setStudents(Math.min(600, Math.max(1, Number(value) || 1)))}
        />
        <Button size="sm" onClick={() => void begin()}>
          Rehearse with {students}
        </Button>
      </div>
    </MarginBlock>
  );
}
