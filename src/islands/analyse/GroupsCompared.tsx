import { NativeSelect } from '@mantine/core';
import { useMemo, useState } from 'react';
import { groupDifference, meanWithInterval } from '@/core/analysis/groupDifference';
import { subgroups, type Divider } from '@/core/analysis/subgroups';
import type { Seat } from '@/core/seats/seats';
import type { SittingData } from '@/desk/useSitting';
import { signed } from '@/words/analysis';
import { counted, percent } from '@/words/format';
import { signedPercent } from '@/words/growth';
import styles from './analyse.module.css';

/** Fewer than this in a group, and its mean says little. */
const fewInGroup = 10;

/** The class by group, field of the register, version or attempt: means with their intervals, as dots. */
export function GroupsCompared({ sitting, seats }: { sitting: SittingData; seats: readonly Seat[] }) {
  const dividers = useMemo(
    () => subgroups(sitting.groups, sitting.questions, sitting.paper.parts ?? [], seats),
    [sitting.groups, sitting.questions, sitting.paper.parts, seats],
  );
  const [asked, setAsked] = useState('');
  const divider = dividers.find(({ id }) => id === asked) ?? dividers[0];
  if (!divider) return null;
  return (
    <section aria-label="Groups compared">
      <div className={styles.tableHead}>
        <h2>Compared</h2>
        <NativeSelect
          size="xs"
          aria-label="Compare by"
          value={divider.id}
          data={dividers.map(({ id, label }) => ({ value: id, label: `by ${label}` }))}
          onChange={(event) => setAsked(event.currentTarget.value)}
        />
      </div>
      <Dots divider={divider} />
    </section>
  );
}

function Dots({ divider: { parts, same } }: { divider: Divider }) {
  const rows = parts.map((part) => ({
    ...part,
    ...meanWithInterval(part.shares),
    // Topics are had by the same students: they are not held against each other.
    against: same
      ? null
      : groupDifference(
          part.shares,
          parts.filter((other) => other !== part).flatMap(({ shares }) => shares),
        ),
  }));
  const few = rows.filter(({ shares }) => shares.length < fewInGroup);
  return (
    <>
      <div className={styles.scrolled} role="region" aria-label="Means" tabIndex={0}>
        <table className={styles.categories}>
          <thead>
            <tr>
              <th scope="col">Students</th>
              <th scope="col" className={styles.dotColumn}>
                Mean, with its 95% interval
              </th>
              <th scope="col" className={styles.figure}>
                Mean
              </th>
              {!same && (
                <th scope="col" className={styles.figure}>
                  Against the others
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name, shares, mean, interval, against }) => (
              <tr key={name}>
                <th scope="row">
                  {name} <span className={styles.soft}>({shares.length})</span>
                </th>
                <td>
                  <Dot mean={mean} interval={interval} />
                </td>
                <td className={styles.figure}>{percent(mean)}</td>
                {!same && (
                  <td className={styles.figure}>
                    {against && (
                      <>
                        {signedPercent(against.difference)}{' '}
                        <span className={styles.soft}>
                          ({signedPercent(against.interval[0])} to {signedPercent(against.interval[1])}, g{' '}
                          {signed(against.g)})
                        </span>
                      </>
                    )}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {!same && (
        <p className={styles.soft}>
          Against all others together, with the 95% interval (Welch) and Hedges’ g. Where the interval holds
          0, it may be chance.
        </p>
      )}
      {few.length > 0 && (
        <p className={styles.notFinal} role="note">
          {few.map(({ name, shares }) => `${name} has only ${counted(shares.length, 'student')}`).join('; ')}:
          such a mean says little.
        </p>
      )}
    </>
  );
}

/** A mean as a dot on a line from 0 to 100 %, with its interval. */
function Dot({ mean, interval }: { mean: number; interval: [number, number] | null }) {
  const [low, high] = (interval ?? [mean, mean]).map((end) => Math.min(1, Math.max(0, end)) * 100);
  return (
    <span
      className={styles.dots}
      role="img"
      aria-label={interval ? `between ${percent(interval[0])} and ${percent(interval[1])}` : percent(mean)}
    >
      <span className={styles.interval} style={{ left: `${low}%`, right: `${100 - (high ?? 0)}%` }} />
      <span className={styles.dot} style={{ left: `${mean * 100}%` }} />
    </span>
  );
}
