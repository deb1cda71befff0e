import type { CSSProperties } from 'react';
import { planColumns, type ColumnTurn } from '@/core/handback/planColumns';
import type { PlanStage } from '@/core/model/release';
import { dayAndTime, duration } from '@/words/format';
import { seenShort, startChoices } from '@/words/releases';
import type { SittingData } from '@/desk/useSitting';
import type { PlanAtHand } from './usePlan';
import styles from './plan.module.css';

/** What is picked in the picture: a stage, or what is seen straight after handing in. */
export const afterHandingIn = 'after';

interface PlanPictureProps {
  sitting: SittingData;
  at: PlanAtHand;
  picked: string;
  pick: (id: string) => void;
}

/** The plan over time: a bar a stage, with now on it. */
export function PlanPicture({ sitting, at, picked, pick }: PlanPictureProps) {
  const { sitting: record, now } = sitting;
  const { turns, bars, nowAt } = planColumns(at.stages, {
    releasedAt: at.releasedAt,
    now,
    after: record.after !== undefined,
  });
  return (
    <div className={styles.scrolled} role="group" aria-label="Plan over time">
      <div
        className={styles.picture}
        style={{ '--columns': turns.length, '--rows': bars.length + (record.after ? 2 : 1) } as CSSProperties}
      >
        {turns.map((turn, index) => (
          <div key={index} className={styles.turn} style={{ gridColumn: index + 1 }} data-known={turn.known}>
            {turnWords(turn, now)}
          </div>
        ))}
        {record.after && (
          <button
            type="button"
            className={styles.bar}
            style={{ gridColumn: '1 / 2', gridRow: 2 }}
            aria-pressed={picked === afterHandingIn}
            onClick={() => pick(afterHandingIn)}
          >
            {seenShort(record.after)}
            {record.afterMs !== undefined && `, for ${duration(record.afterMs)}`}
          </button>
        )}
        {bars.map(({ stage, from, to, known }, index) => (
          <button
            key={stage.id}
            type="button"
            className={styles.bar}
            data-known={known}
            style={{ gridColumn: `${from + 1} / ${to + 1}`, gridRow: index + (record.after ? 3 : 2) }}
            aria-pressed={picked === stage.id}
            aria-label={`Stage ${index + 1}: ${stageWords(stage, now)}, ${seenShort(stage.shows)}`}
            onClick={() => pick(stage.id)}
          >
            {seenShort(stage.shows)}
          </button>
        ))}
        {nowAt !== null && (
          <div
            className={styles.now}
            data-first={nowAt < 0.05 || undefined}
            style={
              {
                gridColumn: Math.floor(nowAt) + 1,
                '--part': nowAt - Math.floor(nowAt),
              } as CSSProperties
            }
            aria-hidden
          >
            <span>now</span>
          </div>
        )}
      </div>
    </div>
  );
}

/** "from Fri, Nov 27 4:00 PM until Mon, Nov 30 4:00 PM" */
function stageWords({ starts, at, until, lastsMs }: PlanStage, now: number): string {
  const from = at !== null && starts !== 'handedBack' ? `from ${dayAndTime(at, now)}` : startChoices[starts];
  const end = until ? ` until ${dayAndTime(until, now)}` : '';
  return `${from}${end}${lastsMs ? ` for ${duration(lastsMs)}` : ''}`;
}

function turnWords(turn: ColumnTurn, now: number): string {
  if (turn.at !== null) return dayAndTime(turn.at, now);
  if (turn.starts === 'in') return 'handed in';
  return turn.starts === 'handedBack' ? 'handed back' : startChoices[turn.starts];
}
