import { Checkbox } from '@mantine/core';
import { readinessOf, type Readiness } from '@/core/handback/readiness';
import { registerName } from '@/core/model/names';
import { hasResult, letOutAt } from '@/core/model/release';
import type { Seat } from '@/core/seats/seats';
import { totalShare, type Scorecard } from '@/core/scoring/scoreAttempt';
import type { SittingData } from '@/desk/useSitting';
import { counted, dayAndTime, percent, points } from '@/words/format';
import { seenShort } from '@/words/releases';
import { VirtualRows } from '@/ui/VirtualRows';
import styles from './handback.module.css';

interface SeatListProps {
  sitting: SittingData;
  seats: Seat[];
  picked: ReadonlySet<string>;
  choose: (picked: ReadonlySet<string>) => void;
}

/** Every student: ready or why not, what the total is, whether it is back and opened. */
export function SeatList({ sitting, seats, picked, choose }: SeatListProps) {
  const choosable = seats.filter((seat) => readinessOf(seat).ready || seat.release);
  const all = choosable.length > 0 && choosable.every((seat) => picked.has(seat.student.id));
  const toggle = (id: string) => {
    const next = new Set(picked);
    if (!next.delete(id)) next.add(id);
    choose(next);
  };
  return (
    <div data-scroller className={styles.scroller} role="region" aria-label="Students" tabIndex={0}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">
              <Checkbox
                size="sm"
                aria-label="Select all that are ready"
                checked={all}
                indeterminate={!all && picked.size > 0}
                onChange={() => choose(new Set(all ? [] : choosable.map((seat) => seat.student.id)))}
              />
            </th>
            <th scope="col">Student</th>
            <th scope="col" className={styles.figure}>
              Total
            </th>
            <th scope="col">Ready</th>
            <th scope="col">Handed back</th>
            <th scope="col">Sees now</th>
            <th scope="col">Opened</th>
          </tr>
        </thead>
        <VirtualRows rows={seats} height={33}>
          {(seat) => (
            <SeatRow
              key={seat.student.id}
              seat={seat}
              sitting={sitting}
              picked={picked.has(seat.student.id)}
              toggle={() => toggle(seat.student.id)}
            />
          )}
        </VirtualRows>
      </table>
    </div>
  );
}

function SeatRow({
  seat,
  sitting,
  picked,
  toggle,
}: {
  seat: Seat;
  sitting: SittingData;
  picked: boolean;
  toggle: () => void;
}) {
  const { student, scorecard, release } = seat;
  const readiness = readinessOf(seat);
  const openings = release ? seat.openedAt : [];
  return (
    <tr>
      <td>
        <Checkbox
          size="sm"
          aria-label={registerName(student)}
          disabled={!readiness.ready && !release}
          checked={picked}
          onChange={toggle}
        />
      </td>
      <td>
        {scorecard ? (
          <a href={`/sittings/${sitting.sitting.id}/scripts/${student.id}`}>{registerName(student)}</a>
        ) : (
          registerName(student)
        )}
      </td>
      <td className={styles.figure}>
        {scorecard && totalWords(scorecard)}
        {scorecard && scorecard.max > 0 && <span className={styles.soft}> {shareOf(scorecard)}</span>}
      </td>
      <td className={readiness.ready ? undefined : styles.soft}>{readinessWords(readiness)}</td>
      <td title={release?.heldBack?.reason}>
        {release?.heldBack
          ? `held back: ${release.heldBack.reason}`
          : release && dayAndTime(release.releasedAt, sitting.now)}
      </td>
      <td className={styles.soft}>{hasResult(release) && seenShort(seenNow(seat, sitting.now))}</td>
      <td>
        {openings.length > 0 &&
          `${dayAndTime(openings[0] ?? '', sitting.now)}${openings.length > 1 ? `, ${openings.length} times` : ''}${openedHow(seat)}`}
      </td>
    </tr>
  );
}

/** ", on a device", where some of it was; the rest was in this browser. */
function openedHow({ openedAt, openedOnDevice }: Seat): string {
  if (openedOnDevice.length === 0) return '';
  return openedOnDevice.length === openedAt.length
    ? ', on a device'
    : `, ${openedOnDevice.length} on a device`;
}

/** What is seen of a result now; null: nothing. */
const seenNow = ({ stages, release }: Seat, now: number) =>
  letOutAt({ stages, releasedAt: release?.releasedAt ?? '' }, now)?.shows ?? null;

/** "9 / 11", and while something has no points yet "3 / 8 so far": of what has them. */
const totalWords = ({ total, max, scoredMax }: Scorecard) =>
  scoredMax < max ? `${points(total)} / ${points(scoredMax)} so far` : `${points(total)} / ${points(max)}`;

function shareOf(card: Scorecard): string {
  const share = totalShare(card);
  return share === null ? '' : percent(share);
}

function readinessWords(readiness: Readiness): string {
  if (readiness.ready) return 'ready';
  const words: Record<typeof readiness.why, string> = {
    notStarted: 'has not started',
    working: 'still working',
    waiting: `${counted(readiness.count, 'answer')} ${readiness.count === 1 ? 'waits' : 'wait'} for a mark`,
    notRead: `${counted(readiness.count, 'answer')} not read yet`,
    noKey: `${counted(readiness.count, 'answer')} without a key`,
    aside: `${counted(readiness.count, 'answer')} set aside`,
  };
  return words[readiness.why];
}
