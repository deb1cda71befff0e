import type { Reliability } from '@/core/analysis/reliability';
import type { TotalFigures } from '@/core/analysis/sittingFigures';
import { trustWords } from '@/words/analysis';
import { points } from '@/words/format';
import styles from './analyse.module.css';

export function Totals({ totals }: { totals: TotalFigures }) {
  const rows: [string, string][] = [
    ['handed in', String(totals.n)],
    ['mean', points(totals.mean)],
    ['median', points(totals.median)],
    ['middle half', `${points(totals.quartiles[0])} to ${points(totals.quartiles[1])}`],
    ['lowest', points(totals.lowest)],
    ['highest', points(totals.highest)],
    ['standard deviation', totals.standardDeviation === null ? '–' : points(totals.standardDeviation)],
    ['maximum points', points(totals.max)],
  ];
  return (
    <dl className={styles.totals}>
      {rows.map(([word, value]) => (
        <div key={word}>
          <dd>{value}</dd>
          <dt>{word}</dt>
        </div>
      ))}
    </dl>
  );
}

/** How far the total can be trusted, in sentences. */
export function Trust({ trust, mean }: { trust: Reliability | null; mean: number }) {
  if (!trust)
    return (
      <p className={styles.soft}>
        How far the total can be trusted can’t be told: it takes two students with points for every question,
        and totals that differ.
      </p>
    );
  return <p>{trustWords(trust, mean).join(' ')}</p>;
}
