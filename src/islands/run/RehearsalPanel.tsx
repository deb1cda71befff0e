import { Button, Progress, Radio } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { clearRehearsal } from '@/store/rehearsal';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { MarginBlock } from '@/ui/TwoColumns';
import { playRehearsal, type Rehearsing } from '@/workers/playRehearsal';
import { Stopped } from '@/workers/stoppable';
import styles from './run.module.css';

const speeds = [
  { value: '1', label: 'real time' },
  { value: '10', label: '10 times' },
  { value: '60', label: '60 times' },
  { value: 'all', label: 'all at once' },
];
const timesOf = (value: string) => (value === 'all' ? Infinity : Number(value));

/** A rehearsal: let the made-up class work, at a chosen speed, and take it away without trace. */
export function RehearsalPanel({ sitting }: { sitting: SittingData }) {
  const { sitting: record, progress } = sitting;
  const [speed, setSpeed] = useState('60');
  const [work, setWork] = useState<{ done: number; of: number } | null>(null);
  const running = useRef<Rehearsing | null>(null);
  useEffect(() => () => running.current?.stop(), []);
  const wish = { lengthMs: (record.timeLimitMs ?? 3_600_000) / 2, seed: 1 };
  const begin = async () => {
    // What is still on its way when the class is stopped tells nothing any more.
    const tell = (far: { done: number; of: number }) => running.current === playing && setWork(far);
    const playing = playRehearsal(record.id, wish, timesOf(speed), tell);
    running.current = playing;
    setWork({ done: 0, of: 1 });
    try {
      await playing.result;
    } catch (error) {
      // Stopped by its own button: nothing to say. Anything else is.
      if (!(error instanceof Stopped)) await act(Promise.reject(error));
    }
    running.current = null;
    setWork(null);
  };
  const choose = (value: string) => {
    setSpeed(value);
    running.current?.setSpeed(timesOf(value));
  };
  const remove = async () => {
    running.current?.stop();
    await act(clearRehearsal(record.id));
    window.location.assign('/');
  };
  const begun = progress.working + progress.in > 0;
  return (
    <MarginBlock title="This is a rehearsal">
      <p className={styles.soft}>
        {progress.students} made-up students. Anything you mark or change here is deleted with them.
      </p>
      <Radio.Group aria-label="Speed" value={speed} onChange={choose}>
        <div className={styles.choices}>
          {speeds.map(({ value, label }) => (
            <Radio key={value} size="sm" value={value} label={label} />
          ))}
        </div>
      </Radio.Group>
      {work ? (
        <>
          <Progress
            value={(100 * work.done) / work.of}
            aria-label={`The class is working: ${work.done} of ${work.of} steps`}
          />
          <Button onClick={() => running.current?.stop()}>Stop the class</Button>
        </>
      ) : (
        <Button variant="filled" onClick={() => void begin()}>
          {begun ? 'Continue the class' : 'Start the class'}
        </Button>
      )}
      <Button onClick={() => void remove()}>Delete rehearsal</Button>
    </MarginBlock>
  );
}
