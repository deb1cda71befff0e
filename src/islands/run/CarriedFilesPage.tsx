import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { hasResult } from '@/core/model/release';
import { scriptSays } from '@/core/handback/scriptSays';
import { scriptsSaved, setScriptsSaved } from '@/store/deskSettings';
import { scriptPackets } from '@/store/carriedFiles';
import { act, say } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { counted } from '@/words/format';
import { fileNameOf } from '@/core/formats/fileName';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { WorkLine } from '@/ui/WorkLine';
import { AnswersIn } from './AnswersIn';
import { zipped, type Sealing } from './carriedFiles';
import { PaperOut } from './PaperOut';
import { stateGroups } from '@/words/attempts';
import styles from './run.module.css';

/** Carrying a sitting by hand: the paper out as a file, answers in, scripts out. */
export function CarriedFilesPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="run" tickMs={5_000}>
      {(sitting) => <CarriedFiles sitting={sitting} />}
    </SittingPage>
  );
}

function CarriedFiles({ sitting }: { sitting: SittingData }) {
  const { sitting: record } = sitting;
  const count = (name: keyof typeof stateGroups) =>
    sitting.seats.filter((seat) => stateGroups[name].includes(seat.state)).length;
  return (
    <TwoColumns
      marginLabel="About carrying files"
      margin={
        <>
          <MarginBlock title="Answers received">
            <dl className={styles.facts}>
              <dt>none yet</dt>
              <dd>{count('notStarted')}</dd>
              <dt>working</dt>
              <dd>{count('working')}</dd>
              <dt>handed in</dt>
              <dd>{count('in')}</dd>
            </dl>
            <Button component="a" justify="start" href={`/sittings/${record.id}/run`}>
              See each student
            </Button>
          </MarginBlock>
          <MarginBlock title="Good to know">
            <p className={styles.soft}>
              Students open the file under “Sit a paper” on any computer with Gribbet, without a network, and
              save their answers as a file at the end. That computer’s clock counts.
            </p>
            <p className={styles.soft}>
              The file has no key in it. Damage on the way is detected, but a student who knows how could
              still fake a file. If it matters, have students sit it in the room.
            </p>
          </MarginBlock>
        </>
      }
    >
      <h2 className={styles.heading}>{record.title} carried in files</h2>
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
  const given = sitting.seats.filter(({ release }) => hasResult(release));
  const back = given.length;
  const saved = useLiveQuery(() => scriptsSaved(record.id), [record.id]);
  const old = given.filter((seat) => {
    const before = saved?.get(seat.student.id);
    return before !== undefined && before !== scriptSays(seat);
  });
  const save = async () => {
    const packets = await act(scriptPackets(record.id, Date.now()));
    if (!packets) return;
    const zip = await act(zipped(packets, `${record.title} back`, 'joinCodes', setSealing));
    if (!zip) return;
    saveFile(`${fileNameOf(record.title)}-scripts.zip`, 'application/zip', zip);
    await setScriptsSaved(record.id, new Map(given.map((seat) => [seat.student.id, scriptSays(seat)])));
    say(`Scripts of ${counted(packets.length, 'student')} saved, one file each`);
  };
  return (
    <section className={styles.stage} aria-labelledby="scripts-out">
      <h2 id="scripts-out">3 Save the scripts</h2>
      {back === 0 ? (
        <p>
          Nothing has been handed back yet. Once you have, on{' '}
          <a href={`/sittings/${record.id}/hand-back`}>Hand back</a>, you can save each student’s script here.
        </p>
      ) : (
        <>
          <p>
            {counted(back, 'student')} have their results. Each file holds what that student may see, sealed
            with their join code.
          </p>
          {old.length > 0 && (
            <p role="note" className={styles.oldFiles}>
              The files saved before are old for {counted(old.length, 'student')}: their results have changed
              since. Save and hand them out again.
            </p>
          )}
          <div className={styles.row}>
            <Button onClick={() => void save()} disabled={sealing !== null}>
              Save scripts as a zip
            </Button>
            {sealing && <WorkLine doing="Sealing" of="file" {...sealing} />}
          </div>
        </>
      )}
    </section>
  );
}
