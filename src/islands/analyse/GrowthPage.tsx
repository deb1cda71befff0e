import { Button, Checkbox } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { lazy, Suspense, useMemo, useState } from 'react';
import { growth } from '@/core/analysis/growth';
import { commonTags, pairedResults, resultLines, type PairedResult } from '@/core/analysis/pairedResults';
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
  const own = sitting.sitting;
  const others = useLiveQuery(() => sittingsOfSameStudents(own.id), [own.id]);
  const [asked, setAsked] = useState<readonly string[] | null>(null);
  const chosen = useMemo(() => asked ?? (others ?? []).slice(0, 1).map(({ id }) => id), [asked, others]);
  const records = useLiveQuery(
    async () => (await Promise.all(chosen.map(sittingRecords))).filter((each) => each !== null),
    [chosen],
  );
  const results = useMemo(() => {
    if (!records || records.length === 0) return null;
    const all = [
      { sitting: own, questions: sitting.questions, seats: sitting.seats },
      ...records.map((each) => ({
        sitting: each.sitting,
        questions: each.questions,
        seats: seatsOf(each, sitting.now),
      })),
    ].sort((a, b) => (a.sitting.opensAt < b.sitting.opensAt ? -1 : 1));
    const [before, after] = [all[0], all.at(-1)];
    if (!before || !after) return null;
    return {
      first: before.sitting,
      second: after.sitting,
      pairs: pairedResults(before, after).sort((a, b) => byRegister(a.student, b.student)),
      topics: commonTags(before, after).map((tag) => ({
        name: tag,
        pairs: pairedResults(before, after, tag),
      })),
      lines: resultLines(all),
      titles: all.map((each) => each.sitting.title),
    };
  }, [records, sitting, own]);
  if (others?.length === 0)
    return (
      <EmptyState
        title="No other sitting of these students"
        action={<a href={`/sittings/${own.id}/analyse`}>Back to Analyse</a>}
      >
        Growth compares sittings that the same students took.
      </EmptyState>
    );
  if (!others || !results) return null;
  const { pairs, topics, first, second, lines, titles } = results;
  const whole = growth(pairs);
  const groups = sitting.groups.map(({ id, name }) => ({
    name,
    pairs: pairs.filter(({ student }) => student.groupIds.includes(id)),
  }));
  const save = () => {
    const round = (share: number | null) => (share === null ? null : Math.round(share * 10_000) / 100);
    const heading = ['Name', 'Number', ...titles.map((title) => `${title} %`), 'Last less first'];
    const rows = lines.map(({ student, shares }) => {
      const [from, to] = [shares[0] ?? null, shares.at(-1) ?? null];
      return [
        ...[registerName(student), student.number, ...shares.map(round)],
        from === null || to === null ? null : round(to - from),
      ];
    });
    saveFile(
      `${fileNameOf(`growth-${second.title}`)}.csv`,
      'text/csv;charset=utf-8',
      csvFrom([heading, ...rows]),
    );
  };
  const choose = (id: string, on: boolean) => {
    const next = on ? [...chosen, id] : chosen.filter((each) => each !== id);
    if (next.length > 0) setAsked(next);
  };
  return (
    <TwoColumns
      marginLabel="What is compared"
      margin={
        <>
          <MarginBlock title="Compared with">
            {others.slice(0, mostSittings).map(({ id, title, opensAt }) => (
              <Checkbox
                key={id}
                size="sm"
                label={`${title}, ${dayAndTime(opensAt, sitting.now)}`}
                checked={chosen.includes(id)}
                onChange={(event) => choose(id, event.currentTarget.checked)}
              />
            ))}
            <p className={styles.soft}>
              Shares of the points, from the first of them to the last, of students who handed in both. The
              papers need not be equally hard: a difference may lie in the papers.
            </p>
            <Button size="compact-sm" disabled={lines.length === 0} onClick={save}>
              Save {counted(lines.length, 'student')} as CSV
            </Button>
            <p>
              <a href={`/sittings/${own.id}/analyse`}>Back to Analyse</a>
            </p>
          </MarginBlock>
          <WentDown pairs={pairs} />
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
            <GrowthChart lines={lines} titles={titles} />
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

/** So many other sittings can be chosen from. */
const mostSittings = 12;

function WentDown({ pairs }: { pairs: readonly PairedResult[] }) {
  const down = pairs.filter(({ before, after }) => after < before - 1e-9);
  return (
    <MarginBlock title={`${counted(down.length, 'student')} went down`}>
      <ol className={styles.under}>
        {[...down]
          .sort((a, b) => a.after - a.before - (b.after - b.before))
          .map(({ student, before, after }) => (
            <li key={student.id}>
              <a href={`/students/${student.id}`}>{registerName(student)}</a>
              <span>
                {percent(before)} → {percent(after)}
              </span>
            </li>
          ))}
      </ol>
    </MarginBlock>
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
    // On a narrow screen its figures are scrolled to.
    <div className={styles.scrolled} role="region" aria-label={title} tabIndex={0}>
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
    </div>
  );
}
