import { useLiveQuery } from 'dexie-react-hooks';
import { lazy, Suspense } from 'react';
import { fullName } from '@/core/model/names';
import { DeskReady } from '@/desk/DeskReady';
import { studentResults, type StudentResult } from '@/store/earlierPapers';
import { desk } from '@/store/tables';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { dayAlone, percent, points } from '@/words/format';
import { signedPercent } from '@/words/growth';
import styles from './analyse.module.css';
import { StudentPrivacy } from './StudentPrivacy';

const ResultsChart = lazy(() => import('./ResultsChart'));

/** All that one student sat, over time and by topic, against the student’s own earlier results. */
export function StudentPage({ studentId }: { studentId: string }) {
  return (
    <DeskReady>
      <Results studentId={studentId} />
    </DeskReady>
  );
}

function Results({ studentId }: { studentId: string }) {
  const student = useLiveQuery(async () => (await desk.students.get(studentId)) ?? null, [studentId]);
  const results = useLiveQuery(() => studentResults(studentId, Date.now()), [studentId]);
  if (student === null)
    return <EmptyState title="Student not found" action={<a href="/groups">Go to groups</a>} />;
  if (!student || !results) return null;
  const known = results.filter((each): each is StudentResult & { share: number } => each.share !== null);
  return (
    <TwoColumns
      marginLabel="About the student"
      margin={
        <>
          <MarginBlock title="Register">
            <p>{student.number && `Number ${student.number}`}</p>
            <ul className={styles.plainList}>
              {student.groupIds.map((id) => (
                <GroupLink key={id} groupId={id} />
              ))}
            </ul>
            <p className={styles.soft}>
              Shares of the points, of what is marked so far. Papers need not be equally hard: the mean of the
              class says how hard each was.
            </p>
          </MarginBlock>
          <StudentPrivacy student={student} />
        </>
      }
    >
      <h1 className={styles.growthTitle}>{fullName(student)}</h1>
      {results.length === 0 ? (
        <p>Has not handed in anything yet.</p>
      ) : (
        <>
          {known.length > 1 && (
            <Suspense fallback={<div className={styles.chart} />}>
              <ResultsChart results={known} />
            </Suspense>
          )}
          <Sittings results={results} studentId={studentId} />
          <Topics results={results} />
        </>
      )}
    </TwoColumns>
  );
}

function GroupLink({ groupId }: { groupId: string }) {
  const group = useLiveQuery(() => desk.groups.get(groupId), [groupId]);
  return group ? (
    <li>
      <a href={`/groups/${groupId}`}>{group.name}</a>
    </li>
  ) : null;
}

function Sittings({ results, studentId }: { results: readonly StudentResult[]; studentId: string }) {
  return (
    <div className={styles.scrolled} role="region" aria-label="Sittings" tabIndex={0}>
      <table className={styles.categories}>
        <thead>
          <tr>
            <th scope="col">Sitting</th>
            {['Day', 'Points', 'Share', 'Class', 'Against the class'].map((column) => (
              <th key={column} scope="col" className={styles.figure}>
                {column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {results.map(({ sittingId, title, opensAt, total, max, share, classMean }) => (
            <tr key={sittingId}>
              <th scope="row">
                <a href={`/sittings/${sittingId}/scripts/${studentId}`}>{title}</a>
              </th>
              <td className={styles.figure}>{dayAlone(opensAt)}</td>
              <td className={styles.figure}>
                {points(total)} of {points(max)}
              </td>
              <td className={styles.figure}>{share === null ? '–' : percent(share)}</td>
              <td className={styles.figure}>{classMean === null ? '–' : percent(classMean)}</td>
              <td className={styles.figure}>
                {share === null || classMean === null ? '–' : signedPercent(share - classMean)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Each topic over the sittings that had it, and the last against the one before. */
function Topics({ results }: { results: readonly StudentResult[] }) {
  const names = [...new Set(results.flatMap(({ topics }) => topics.map(({ name }) => name)))].sort();
  if (names.length === 0) return null;
  const having = results.filter(({ topics }) => topics.length > 0);
  return (
    <div className={styles.scrolled} role="region" aria-label="By topic" tabIndex={0}>
      <table className={styles.categories}>
        <thead>
          <tr>
            <th scope="col">By topic</th>
            {having.map(({ sittingId, title }) => (
              <th key={sittingId} scope="col" className={styles.figure}>
                {title}
              </th>
            ))}
            <th scope="col" className={styles.figure}>
              Last against before
            </th>
          </tr>
        </thead>
        <tbody>
          {names.map((name) => {
            const shares = having.map(
              ({ topics }) => topics.find((each) => each.name === name)?.share ?? null,
            );
            const [before, last] = shares.filter((share) => share !== null).slice(-2);
            return (
              <tr key={name}>
                <th scope="row">{name}</th>
                {shares.map((share, index) => (
                  <td key={having[index]?.sittingId} className={styles.figure}>
                    {share === null ? '' : percent(share)}
                  </td>
                ))}
                <td className={styles.figure}>
                  {before === undefined || last === undefined ? '' : signedPercent(last - before)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
