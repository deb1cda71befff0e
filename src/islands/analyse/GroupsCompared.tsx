import { NativeSelect } from '@mantine/core';
import { useMemo, useState } from 'react';
import { groupDifference, meanWithInterval } from '@/core/analysis/groupDifference';
import { subgroups, type Divider } from '@/core/analysis/subgroups';
import type { Seat } from '@/core/seats/seats';
import type { SittingData } from '@/desk/useSitting';
import { counted, percent, points } from '@/words/format';
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
  const rows = parts.map((part) => ({ ...part, ...meanWithInterval(part.shares) }));
  const [first, second] = rows;
  const apart =
    !same && rows.length === 2 && first && second ? groupDifference(first.shares, second.shares) : null;
  const few = rows.filter(({ shares }) => shares.length < fewInGroup);
  return (
    <>
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
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, shares, mean, interval }) => (
            <tr key={name}>
              <th scope="row">
                {name} <span className={styles.soft}>({shares.length})</span>
              </th>
              <td>
                <span className={styles.dots} aria-hidden>
                  {interval && (
                    <span
                      className={styles.interval}
                      style={{
                        left: `${Math.max(0, interval[0]) * 100}%`,
                        right: `${(1 - Math.min(1, interval[1])) * 100}%`,
                      }}
                    />
                  )}
                  <span className={styles.dot} style={{ left: `${mean * 100}%` }} />
                </span>
              </td>
              <td className={styles.figure}>
                {percent(mean)}{' '}
                {interval && (
                  <span className={styles.soft}>
                    {percent(Math.max(0, interval[0]))}–{percent(Math.min(1, interval[1]))}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {apart && first && second && (
        <p>
          {first.name} is {percent(Math.abs(apart.difference))} {apart.difference < 0 ? 'below' : 'above'}{' '}
          {second.name}
          {apart.interval[0] < 0 && apart.interval[1] > 0
            ? ', which may be chance'
            : ', which is hardly chance'}{' '}
          (95% between {percent(apart.interval[0])} and {percent(apart.interval[1])}; Hedges’ g{' '}
          {points(apart.g)}).
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
