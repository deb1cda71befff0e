import { Button } from '@mantine/core';
import { useState } from 'react';
import { scriptPackets } from '@/store/byHand';
import { act, say } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { counted } from '@/ui/format';
import { fileNameOf } from '@/core/formats/fileName';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { WorkLine } from '@/ui/WorkLine';
import { AnswersIn } from './AnswersIn';
import { zipped, type Sealing } from './handFiles';
import { PaperOut } from './PaperOut';
import { stateGroups } from './stateWords';
import styles from './run.module.css';

/** Carrying a sitting by hand: the paper out as a file, answers in, scripts out. */
export function ByHandPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="run" tickMs={5_000}>
      {(sitting) => <ByHand sitting={sitting} />}
    </SittingPage>
  );
}

function ByHand({ sitting }: { sitting: SittingData }) {
  const { sitting: record } = sitting;
  const count = (name: keyof typeof stateGroups) =>
    sitting.seats.filter((seat) => stateGroups[name].includes(seat.state)).length;
  return (
    <TwoColumns
      marginLabel="About carrying by hand"
      margin={
        <>
          <MarginBlock title="Whose answers are here">
            <dl className={styles.facts}>
              <dt>none yet</dt>
              <dd>{count('notStarted')}</dd>
              <dt>working</dt>
              <dd>{count('working')}</dd>
              <dt>in</dt>
              <dd>{count('in')}</dd>
            </dl>
            <Button component="a" justify="start" href={`/sittings/${record.id}/run`}>
              Student by student
            </Button>
          </MarginBlock>
          <MarginBlock title="Good to know">
            <p className={styles.soft}>
              A student opens the file under “Sit a paper” on any computer with Gribbet, without a network,
              and saves the answers as a file in the end. That computer’s clock counts.
            </p>
            <p className={styles.soft}>
              The file has no key in it. What was spoilt on its way is noticed; who knows how to, can still
              make up a file. What matters is better sat in the room.
            </p>
          </MarginBlock>
        </>
      }
    >
      <h1 className={styles.heading}>{record.title} carried by hand</h1>
      <PaperOut sitting={sitting} />
      <AnswersIn sitting={sitting} />
      <ScriptsOut sitting={sitting} />
    </TwoColumns>
  );
}

/** What was handed back, as a sealed file for each student. */
function ScriptsOut({ sitting }: { sitting: SittingData }) {
  const { sitting: record } = sitting;
  const [sealing, setSealing] = useState<Sealing | null>(null);
  const back = sitting.seats.filter(({ release }) => release !== null).length;
  const save = async () => {
    const packets = await act(scriptPackets(record.id, Date.now()));
    if (!packets) return;
    const zip = await act(zipped(packets, `${record.title} back`, 'joinCodes', setSealing));
    if (!zip) return;
    saveFile(`${fileNameOf(record.title)}-scripts.zip`, 'application/zip', zip);
    say(`Scripts of ${counted(packets.length, 'student')} saved, one file each`);
  };
  return (
    <section className={styles.stage} aria-labelledby="scripts-out">
      <h2 id="scripts-out">Scripts, out</h2>
      {back === 0 ? (
        <p>
          Nothing has been handed back yet. Once it is, on{' '}
          <a href={`/sittings/${record.id}/hand-back`}>Hand back</a>, each student’s script can be saved here.
        </p>
      ) : (
        <>
          <p>
            {counted(back, 'student')} had it handed back. Each file holds what was let out for that student
            alone, sealed with their join code.
          </p>
          <div className={styles.row}>
            <Button onClick={() => void save()} disabled={sealing !== null}>
              Save the scripts as a zip
            </Button>
            {sealing && <WorkLine doing="Sealing" of="file" {...sealing} />}
          </div>
        </>
      )}
    </section>
  );
}
