import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, type ReactNode } from 'react';
import { lineItemOf, registerResults, resultsPackage } from '@/core/formats/oneroster/writeResults';
import { fileNameOf } from '@/core/formats/fileName';
import { inView } from '@/core/model/names';
import { say } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { desk } from '@/store/tables';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import { registerLossWords } from '@/words/register';
import { SendToRegister } from './SendToRegister';
import styles from './takeout.module.css';

interface RegisterOutProps {
  sitting: SittingData;
  group: string;
  choice: ReactNode;
  elsewhere: ReactNode;
}

/** Results for a school register, with what it cannot hold. */
export function RegisterOut({ sitting, group, choice, elsewhere }: RegisterOutProps) {
  const { sitting: record, groups, now } = sitting;
  const scale = useLiveQuery(async () => (await desk.grades.get(record.id)) ?? null, [record.id]) ?? null;
  const seats = useMemo(
    () => sitting.seats.filter(({ student }) => inView(student, group)),
    [sitting.seats, group],
  );
  const about = { sitting: record, seats, groups, scale, now };
  const { results, losses } = registerResults(about);
  const save = () => {
    const name = `${fileNameOf(`results ${record.title}`)}.zip`;
    saveFile(name, 'application/zip', resultsPackage(about).zip);
    say(`${counted(results.length, 'result')} saved as ${name}`);
  };
  return (
    <TwoColumns
      marginLabel="What is exported"
      margin={
        <>
          {choice}
          <MarginBlock title="School register">
            <div className={styles.fields}>
              <p>A OneRoster 1.2 package of CSV files.</p>
              <Button variant="filled" disabled={results.length === 0} onClick={save}>
                Save {counted(results.length, 'result')} for the register
              </Button>
              <SendToRegister sittingId={record.id} item={lineItemOf(about)} results={results} />
              <ul className={styles.losses} aria-label="What is lost">
                {losses.map((loss) => (
                  <li key={loss.code}>{registerLossWords(loss)}</li>
                ))}
              </ul>
            </div>
          </MarginBlock>
          {elsewhere}
        </>
      }
    >
      <div className={styles.scroller} role="region" aria-label="Preview of the results" tabIndex={0}>
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col">student</th>
              <th scope="col">status</th>
              <th scope="col">score</th>
              <th scope="col">grade</th>
              <th scope="col">date</th>
              <th scope="col">comment</th>
            </tr>
          </thead>
          <tbody>
            {results.slice(0, 30).map((row) => (
              <tr key={row.sourcedId}>
                <td>{row.studentSourcedId}</td>
                <td>{row.scoreStatus}</td>
                <td className={styles.figure}>{row.score}</td>
                <td>{row.textScore}</td>
                <td>{row.scoreDate}</td>
                <td>{row.comment}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </TwoColumns>
  );
}
