import { Button } from '@mantine/core';
import { useState } from 'react';
import { canBeDone, type SeatAct } from '@/core/running/seatActs';
import type { Seat } from '@/core/running/standing';
import type { SittingData } from '@/ui/desk/useSitting';
import { counted } from '@/ui/format';
import { MarginBlock } from '@/ui/TwoColumns';
import { SeatActForm } from './SeatActForm';
import { seatActNames, seatActs } from './seatActs';
import styles from './run.module.css';

/** What can be done at once for all students that the grid shows. */
export function SeveralPanel({ seats, sitting }: { seats: Seat[]; sitting: SittingData }) {
  const [doing, setDoing] = useState<SeatAct | null>(null);
  const able = (name: SeatAct) => seats.filter((seat) => canBeDone(name, seat, sitting.sitting, sitting.now));
  const offered = seatActNames.filter((name) => seatActs[name].several && able(name).length > 0);
  if (offered.length === 0) return null;
  return (
    <MarginBlock title={doing ? seatActs[doing].label : `For the ${counted(seats.length, 'student')} shown`}>
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
          <p className={styles.soft}>A name in the grid opens what can be done for one alone.</p>
          <div className={styles.acts}>
            {offered.map((name) => (
              <Button key={name} size="compact-md" onClick={() => setDoing(name)}>
                {seatActs[name].label}
              </Button>
            ))}
          </div>
        </>
      )}
    </MarginBlock>
  );
}
