import { Button } from '@mantine/core';
import { useState } from 'react';
import { canBeDone, type SeatAct } from '@/core/seats/seatActs';
import type { Seat } from '@/core/seats/seats';
import type { SittingData } from '@/desk/useSitting';
import { counted } from '@/words/format';
import { MarginBlock } from '@/ui/TwoColumns';
import { DeleteAttempt } from './DeleteAttempt';
import { NudgeForm } from './NudgeForm';
import { SeatActForm } from './SeatActForm';
import { seatActNames, seatActs } from './seatActs';
import styles from './run.module.css';

/** What can be done at once for the students that are picked, or for all that the grid shows. */
export function SeveralPanel({
  seats,
  picked,
  sitting,
}: {
  seats: Seat[];
  /** Whether they were picked one by one, and are not just those shown. */
  picked: boolean;
  sitting: SittingData;
}) {
  const [doing, setDoing] = useState<SeatAct | 'nudge' | null>(null);
  const able = (name: SeatAct) => seats.filter((seat) => canBeDone(name, seat, sitting.sitting, sitting.now));
  const offered = seatActNames.filter((name) => seatActs[name].several && able(name).length > 0);
  // Those who are at work, or can no longer start, are not told that it waits for them.
  const nudged = seats.filter(
    ({ state, terms }) => state === 'notStarted' && (terms.start === 'open' || terms.start === 'notYet'),
  );
  const last = seats.flatMap((seat) => seat.last ?? []);
  if (offered.length === 0 && nudged.length === 0) return null;
  const title = `For the ${counted(seats.length, 'student')} ${picked ? 'selected' : 'shown'}`;
  if (doing === 'nudge')
    return (
      <MarginBlock title="Reminder">
        <NudgeForm seats={nudged} sitting={sitting} done={() => setDoing(null)} />
      </MarginBlock>
    );
  return (
    <MarginBlock title={doing ? seatActs[doing].label : title}>
      {doing && able(doing).length > 0 ? (
        <SeatActForm
          key={doing}
          doing={doing}
          seats={able(doing)}
          sitting={sitting}
          done={() => setDoing(null)}
        />
      ) : (
        <>
          <p className={styles.soft}>Click a name for one student; tick boxes for several.</p>
          <div className={styles.acts}>
            {offered.map((name) => (
              <Button key={name} size="compact-md" onClick={() => setDoing(name)}>
                {seatActs[name].label}
              </Button>
            ))}
            {nudged.length > 0 && (
              <Button size="compact-md" onClick={() => setDoing('nudge')}>
                Send a reminder to {counted(nudged.length, 'student')}
              </Button>
            )}
            {picked && last.length > 0 && (
              <DeleteAttempt attempts={last} sitting={sitting} done={() => setDoing(null)} />
            )}
          </div>
        </>
      )}
    </MarginBlock>
  );
}
