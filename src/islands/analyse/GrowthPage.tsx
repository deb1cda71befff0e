import { Button, NativeSelect } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { lazy, Suspense, useMemo, useState } from 'react';
import { growth } from '@/core/analysis/growth';
import { commonTags, pairedResults, type PairedResult } from '@/core/analysis/pairedResults';
import { byRegister, registerName } from '@/core/model/names';
import { csvFrom } from '@/core/formats/csv/table';
import { fileNameOf } from '@/core/formats/fileName';
import { seatsOf } from '@/core/seats/seats';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { sittingRecords } from '@/store/queries';
import { sittingsOfSameStudents } from '@/store/sameStudents';
import { EmptyState } from '@/ui/EmptyState';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted, dayAndTime, percent } from '@/words/format';
import { growthWords, signedPercent } from '@/words/growth';
import styles from './analyse.module.css';

const GrowthChart = lazy(() => import('./GrowthChart'));

/** The same students in two sittings: who went up, who went down, by topic and group. */
export function GrowthPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="analyse">
      {(sitting) => <Growing sitting={sitting} />}
    </SittingPage>
  );
}

function Growing({ sitting }: { sitting: SittingData }) {
  const others = useLiveQuery(() => sittingsOfSameStudents(sitting.sitting.id), [sitting.sitting.id]);
  const [asked, setAsked] = useState('');
  const otherId = others?.find(({ id }) => id === asked)?.id ?? others?.[0]?.id ?? null;
  const other = useLiveQuery(
    async () => (otherId === null ? null : await sittingRecords(otherId)),
    [otherId],
  );
  const results = useMemo(() => {
    if (!other) return null;
    const here = { questions: sitting.questions, seats: sitting.seats };
    const there = { questions: other.questions, seats: seatsOf(other, sitting.now) };
    const earlier = other.sitting.opensAt <= sitting.sitting.opensAt;
    const [before, after] = earlier ? [there, here] : [here, there];
    const [first, second] = earlier ? [other.sitting, sitting.sitting] : [sitting.sitting, other.sitting];
    const pairs = pairedResults(before, after).sort((a, b) => byRegister(a.student, b.student));
    const topics = commonTags(before, after).map((tag) => ({
      name: tag,
      pairs: pairedResults(before, after, tag),
    }));
    return { pairs, topics, first, second };
  }, [other, sitting]);
  if (others?.length === 0)
    return (
      <EmptyState
        title="No other sitting of these students"
        action={<a href={`/sittings/${sitting.sitting.id}/analyse`}>Back to Analyse</a>}
      >
        Growth compares two sittings that the same students took.
      </EmptyState>
    );
  if (!others || !results) return null;
  const { pairs, topics, first, second } = results;
  const whole = growth(pairs);
  const groups = sitting.groups.map(({ id, name }) => ({
    name,
    pairs: pairs.filter(({ student }) => student.groupIds.includes(id)),
  }));
  const down = pairs.filter(({ before, after }) => after < before - 1e-9);
  const save = () => {
    const heading = ['Name', 'Number', `${first.title} %`, `${second.title} %`, 'Difference'];
    const round = (share: number) => Math.round(share * 10_000) / 100;
    const rows = pairs.map(({ student, before, after }) => [
      ...[registerName(student), student.number, round(before), round(after), round(after - before)],
    ]);
    saveFile(
      `${fileNameOf(`growth-${second.title}`)}.csv`,
      'text/csv;charset=utf-8',
      csvFrom([heading, ...rows], true),
    );
  };
  return (
    <TwoColumns
      marginLabel="What is compared"
      margin={
        <>
          <MarginBlock title="Compared with">
            <NativeSelect
              size="xs"
              aria-label="Other sitting"
              value={otherId ?? ''}
              data={others.map(({ id, title, opensAt }) => ({
                value: id,
                label: `${title}, ${dayAndTime(opensAt, sitting.now)}`,
              }))}
              onChange={(event) => setAsked(event.currentTarget.value)}
            />
            <p className={styles.soft}>
              Shares of the points, of students who handed in both. The two papers need not be equally hard: a
              difference may lie in the papers.
            </p>
            <Button size="compact-sm" disabled={pairs.length === 0} onClick={save}>
              Save {counted(pairs.length, 'student')} as CSV
            </Button>
            <p>
              <a href={`/sittings/${sitting.sitting.id}/analyse`}>Back to Analyse</a>
            </p>
          </MarginBlock>
          <MarginBlock title={`${counted(down.length, 'student')} went down`}>
            <ol className={styles.under}>
              {[...down]
                .sort((a, b) => a.after - a.before - (b.after - b.before))
                .map(({ student, before, after }) => (
                  <li key={student.id}>
                    <a href={`/sittings/${sitting.sitting.id}/scripts/${student.id}`}>
                      {registerName(student)}
                    </a>
                    <span>
                      {percent(before)} → {percent(after)}
                    </span>
                  </li>
                ))}
            </ol>
          </MarginBlock>
        </>
      }
    >
      <h2 className={styles.growthTitle}>
        {first.title} to {second.title}
      </h2>
      {whole ? (
        <>
          <p>{growthWords(whole)}</p>
          <Suspense fallback={<div className={styles.mapRoom} />}>
            <GrowthChart pairs={pairs} first={first.title} second={second.title} />
          </Suspense>
          <Parts title="By group" parts={groups} />
          <Parts title="By topic" parts={topics} />
        </>
      ) : (
        <p>It takes two students with points in both sittings.</p>
      )}
    </TwoColumns>
  );
}

function Parts({
  title,
  parts,
}: {
  title: string;
  parts: readonly { name: string; pairs: PairedResult[] }[];
}) {
  const rows = parts.flatMap(({ name, pairs }) => {
    const found = growth(pairs);
    return found ? [{ name, found }] : [];
  });
  if (rows.length === 0) return null;
  return (
    <table className={styles.categories}>
      <thead>
        <tr>
          <th scope="col">{title}</th>
          {['Students', 'Before', 'After', 'Difference', '95% between', 'Down'].map((column) => (
            <th key={column} scope="col" className={styles.figure}>
              {column}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, found }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className={styles.figure}>{found.n}</td>
            <td className={styles.figure}>{percent(found.before)}</td>
            <td className={styles.figure}>{percent(found.after)}</td>
            <td className={styles.figure}>{signedPercent(found.difference)}</td>
            <td className={styles.figure}>
              {signedPercent(found.interval[0])} and {signedPercent(found.interval[1])}
            </td>
            <td className={styles.figure}>{found.down}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
