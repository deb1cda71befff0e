import { Button, Checkbox } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { givesKeyAway, readinessOf, stillToSit } from '@/core/handback/readiness';
import { givenAwayWords, releaseSentence } from '@/words/releases';
import { inView, isGuest } from '@/core/model/names';
import type { Release, Shows } from '@/core/model/release';
import { handBack, stillToSitElsewhere, withdrawResults } from '@/store/releases';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { counted } from '@/words/format';
import { GroupSelect } from '@/ui/GroupSelect';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { SeatList } from './SeatList';
import { ShowsChoice } from '../../desk/ShowsChoice';
import { TakeOut } from './TakeOut';
import styles from './handback.module.css';

/** Handing back: who is ready, who gets it, and what they see. */
export function HandBackPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="handBack">
      {(sitting) => <HandBack sitting={sitting} />}
    </SittingPage>
  );
}

const allShown: Shows = {
  total: true,
  points: true,
  answers: true,
  rightOrWrong: true,
  accepted: true,
  comments: true,
};

function HandBack({ sitting }: { sitting: SittingData }) {
  const lastShows = latestOf(sitting.releases)?.shows;
  const [shows, setShows] = useState<Shows>(lastShows ?? allShown);
  const [group, setGroup] = useState('');
  const [chosen, setChosen] = useState<ReadonlySet<string> | null>(null);
  const seats = useMemo(
    () => sitting.seats.filter((seat) => inView(seat.student, group)),
    [sitting.seats, group],
  );
  const ready = seats.filter((seat) => readinessOf(seat).ready);
  const fresh = ready.filter((seat) => !seat.release);
  // Until the teacher chooses, all that are ready and do not have it yet.
  const picked = new Set(
    (chosen ? ready.filter((seat) => chosen.has(seat.student.id)) : fresh).map((seat) => seat.student.id),
  );
  const back = seats.filter((seat) => seat.release && (chosen ? chosen.has(seat.student.id) : true));
  const elsewhere = useStillToSitElsewhere(sitting);
  const spoils = givesKeyAway(shows) ? stillToSit(sitting.seats) + elsewhere : 0;
  // The yes is to exactly this: to these answers, for so many who may still sit.
  const question = `${givenAwayWords(shows)} ${spoils}`;
  const [saidYes, setSaidYes] = useState('');
  const yes = saidYes === question;
  const give = async () => {
    if (await act(handBack(sitting.sitting.id, [...picked], shows, isoNow()))) setChosen(null);
  };
  const take = async () => {
    const ids = back.map((seat) => seat.student.id);
    if (await act(withdrawResults(sitting.sitting.id, ids, isoNow()))) setChosen(null);
  };
  if (sitting.progress.students === 0)
    return (
      <EmptyState title="There are no students in this sitting" action={<a href="/groups">Go to groups</a>} />
    );
  return (
    <TwoColumns
      marginLabel="What students see"
      margin={
        <>
          <MarginBlock title="What they see">
            <ShowsChoice shows={shows} setShows={setShows} />
            <p className={styles.sentence}>{releaseSentence(shows)}</p>
            {spoils > 0 && picked.size > 0 && (
              <Checkbox
                size="sm"
                className={styles.warning ?? ''}
                label={`Yes, show ${givenAwayWords(shows)} now, although ${counted(spoils, 'student')} may still sit this paper and could find out`}
                checked={yes}
                onChange={(event) => setSaidYes(event.currentTarget.checked ? question : '')}
              />
            )}
            <Button
              variant="filled"
              disabled={picked.size === 0 || (spoils > 0 && !yes)}
              onClick={() => void give()}
            >
              {picked.size === 0 ? 'Hand back' : `Hand back to ${counted(picked.size, 'student')}`}
            </Button>
            {back.length > 0 && (
              <Button onClick={() => void take()}>
                Withdraw from {chosen ? '' : 'all '}
                {counted(back.length, 'student')}
              </Button>
            )}
          </MarginBlock>
          <TakeOut sitting={sitting} />
        </>
      }
    >
      <div className={styles.head}>
        <p>
          <strong>{ready.length}</strong> of {seats.length} ready,{' '}
          <strong>{seats.filter((seat) => seat.release).length}</strong> have it,{' '}
          <strong>{seats.filter((seat) => seat.release && seat.openedAt.length > 0).length}</strong> opened
          it.
        </p>
        <GroupSelect
          groups={sitting.groups}
          guests={sitting.seats.some((seat) => isGuest(seat.student))}
          value={group}
          choose={setGroup}
        />
      </div>
      <SeatList sitting={sitting} seats={seats} picked={chosen ?? picked} choose={setChosen} />
    </TwoColumns>
  );
}

/** What was let out last: what the boxes begin with. */
const latestOf = (releases: readonly Release[]): Release | undefined =>
  releases.reduce<Release | undefined>(
    (latest, next) => (latest && latest.releasedAt >= next.releasedAt ? latest : next),
    undefined,
  );

/** How many may still sit the same paper in other sittings. */
function useStillToSitElsewhere({ sitting, now }: SittingData): number {
  const minute = Math.floor(now / 60_000);
  return useLiveQuery(() => stillToSitElsewhere(sitting, minute * 60_000), [sitting, minute]) ?? 0;
}
