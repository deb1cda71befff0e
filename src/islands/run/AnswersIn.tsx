import { Button } from '@mantine/core';
import { FileButton } from '@/ui/FileButton';
import { useState, type DragEvent } from 'react';
import { takeInAnswers, type Arrived } from '@/store/carriedFiles';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { WorkLine } from '@/ui/WorkLine';
import type { Work } from '@/workers/stoppable';
import type { FoundPacket } from '@/core/formats/packet/packetFiles';
import { CameList } from './CameList';
import { readFiles, refusalOf, type Came } from './carriedFiles';
import styles from './run.module.css';

/** Answers packets, any number of them: dropped, read, taken in; what cannot be is named with its reason. */
export function AnswersIn({ sitting }: { sitting: SittingData }) {
  const sittingId = sitting.sitting.id;
  const [came, setCame] = useState<Came[]>([]);
  const [reading, setReading] = useState<{ work: Work<FoundPacket[]>; done: number; of: number } | null>(
    null,
  );

  /** Takes files in and lays what became of them over the list. */
  const take = async (files: { name: string; arrived: Arrived }[], others: Came[] = []) => {
    const arrived = files.map((each) => each.arrived);
    const taken = arrived.length > 0 ? await act(takeInAnswers(sittingId, arrived, isoNow())) : [];
    if (!taken) return;
    const told = files.flatMap(({ name, arrived: { file } }, index): Came[] => {
      const became = taken[index];
      return became ? [{ name, became: 'told', file, taken: became }] : [];
    });
    const now = [...others, ...told];
    const names = new Set(now.map(({ name }) => name));
    setCame((before) => [...now, ...before.filter(({ name }) => !names.has(name))]);
  };
  const read = async (files: File[]) => {
    if (files.length === 0) return;
    // The last word of how far it is may come after the end.
    const work = readFiles(files, (done) => setReading((now) => now && { ...now, done }));
    setReading({ work, done: 0, of: files.length });
    const found = await act(work.result);
    setReading(null);
    if (!found) return;
    const others: Came[] = [];
    const good: { name: string; arrived: Arrived }[] = [];
    for (const each of namedApart(found)) {
      const refused = refusalOf(each);
      if (refused) others.push(refused);
      else if (each.read.outcome === 'read' && each.read.packet.kind === 'answers') {
        const file = each.read.packet.content;
        if (each.read.changed) others.push({ name: each.name, became: 'changed', file });
        else good.push({ name: each.name, arrived: { file, studentId: null } });
      }
    }
    if (found.length === 0) say('It is empty', true);
    await take(good, others);
  };
  const dropped = (event: DragEvent) => {
    event.preventDefault();
    void read([...event.dataTransfer.files]);
  };
  return (
    <section className={styles.stage} aria-labelledby="answers-in">
      <h2 id="answers-in">2 Import answers</h2>
      <div className={styles.drop} onDragOver={(event) => event.preventDefault()} onDrop={dropped}>
        <FileButton
          multiple
          onChange={(files) => void read(files)}
          inputProps={{ 'aria-label': 'Choose answer files' }}
        >
          {(button) => <Button {...button}>Choose answer files</Button>}
        </FileButton>
        <span className={styles.soft}>or drop them here: one, many, or a zip of them</span>
      </div>
      {reading && (
        <WorkLine doing="Reading" of="file" done={reading.done} all={reading.of} stop={reading.work.stop} />
      )}
      {came.length > 0 && (
        <CameList
          sitting={sitting}
          came={came}
          takeIn={(name, file, studentId) => void take([{ name, arrived: { file, studentId } }])}
        />
      )}
    </section>
  );
}

/** Files of the same name, from different folders, told apart by a number. */
function namedApart(found: readonly FoundPacket[]): FoundPacket[] {
  const seen = new Map<string, number>();
  return found.map((each) => {
    const count = (seen.get(each.name) ?? 0) + 1;
    seen.set(each.name, count);
    return count === 1 ? each : { ...each, name: `${each.name} (${count})` };
  });
}
