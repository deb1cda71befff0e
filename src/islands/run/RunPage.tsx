import { Button } from '@mantine/core';
import { useMemo, useState } from 'react';
import { guestsOnly, inView, isGuest, registerName, withoutGuests } from '@/core/model/names';
import { inGridOrder } from '@/core/seats/gridOrder';
import type { Seat } from '@/core/seats/seats';
import { SittingPage } from '@/desk/SittingPage';
import { deskHearing } from '@/store/live/presence';
import type { SittingData } from '@/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { later } from '@/ui/later';
import { useSoonHere } from '@/ui/useSoonHere';
import { GroupSelect } from '@/ui/GroupSelect';
import { TwoColumns } from '@/ui/TwoColumns';
import { usePicked } from '@/ui/usePicked';
import { GlyphLegend } from '@/ui/GlyphLegend';
import { LateInSitting } from './LateAnswers';
import { SittingRequests } from './Requests';
import { SeveralPanel } from './SeveralPanel';
import { LineFault, StoppedWord } from './ServerWord';
import { SittingPanel } from './SittingPanel';
import { StudentGrid, type GridOrder } from './StudentGrid';
import { stateGroups, type StateGroup } from '@/words/attempts';
import styles from './run.module.css';

const ChangeRules = later(async () => (await import('./ChangeRules')).ChangeRules);
const RehearsalPanel = later(async () => (await import('./RehearsalPanel')).RehearsalPanel);
const SeatPanel = later(async () => (await import('./SeatPanel')).SeatPanel);
// While a class sits, nothing may be out of reach because the server is.
const soonHere = [ChangeRules, SeatPanel];

/** Watching a sitting: who has started, what is answered, and what to do for one student. */
export function RunPage({ sittingId }: { sittingId: string }) {
  useSoonHere(soonHere);
  return (
    <SittingPage sittingId={sittingId} current="run" tickMs={5_000}>
      {(sitting) => <Watch sitting={sitting} />}
    </SittingPage>
  );
}

function Watch({ sitting }: { sitting: SittingData }) {
  const [chosenGroup, setGroup] = useState('');
  const [state, setState] = useState<StateGroup | null>(null);
  const [studentId, setStudentId] = useState<string | null>(() =>
    new URLSearchParams(window.location.search).get('student'),
  );
  const [order, setOrder] = useState<GridOrder>({ column: 'name', turned: false });
  const [hidden, setHidden] = useState(false);
  const [changing, setChanging] = useState(false);
  const { picked, pick } = usePicked();
  const anyGuest = sitting.seats.some((seat) => isGuest(seat.student));
  // With the last guest matched to a student there is nothing left to look at apart.
  const apart = chosenGroup === guestsOnly || chosenGroup === withoutGuests;
  const group = apart && !anyGuest ? '' : chosenGroup;
  const ofGroup = useMemo(
    () => sitting.seats.filter((seat) => inView(seat.student, group)),
    [sitting.seats, group],
  );
  const shown = useMemo(() => {
    const some = ofGroup.filter((seat) => state === null || stateGroups[state].includes(seat.state));
    return inGridOrder(some, order.column, order.turned, sitting.now, deskHearing());
  }, [ofGroup, state, order, sitting.now]);
  const place = useMemo(
    () => new Map(sitting.seats.map((seat, index) => [seat.student.id, index + 1])),
    [sitting.seats],
  );
  const nameOf = (seat: Seat) =>
    hidden ? `Student ${place.get(seat.student.id)}` : registerName(seat.student);
  const close = () => {
    setStudentId(null);
    // Back to the row that it was opened from.
    const row = `[data-student="${studentId ?? ''}"]`;
    requestAnimationFrame(() => document.querySelector<HTMLElement>(row)?.focus());
  };
  const current = sitting.seats.find((seat) => seat.student.id === studentId);
  const chosen = shown.filter((seat) => picked.has(seat.student.id));
  return (
    <TwoColumns
      marginLabel={current ? 'About the student' : 'About the sitting'}
      margin={
        current ? (
          <SeatPanel key={current.student.id} seat={current} sitting={sitting} close={close} />
        ) : (
          <>
            {sitting.sitting.rehearsal && <RehearsalPanel sitting={sitting} />}
            {!hidden && <SittingRequests sitting={sitting} />}
            {!hidden && <LateInSitting sitting={sitting} choose={setStudentId} />}
            <SeveralPanel
              key={`${state} ${group} ${chosen.length === 0}`}
              seats={chosen.length > 0 ? chosen : shown}
              picked={chosen.length > 0}
              sitting={sitting}
            />
            <SittingPanel sitting={sitting} changing={changing} changeRules={() => setChanging(!changing)} />
          </>
        )
      }
    >
      {sitting.sitting.onDevices && (
        <>
          <LineFault sitting={sitting.sitting} />
          <StoppedWord />
        </>
      )}
      {!changing && (
        <div className={styles.counts}>
          <StateFilter seats={ofGroup} state={state} choose={setState} />
          <GroupSelect groups={sitting.groups} guests={anyGuest} value={group} choose={setGroup} />
          <Button size="compact-sm" aria-pressed={hidden} onClick={() => setHidden(!hidden)}>
            {hidden ? 'Show names' : 'Hide names'}
          </Button>
        </div>
      )}
      {changing ? (
        <ChangeRules sitting={sitting} done={() => setChanging(false)} />
      ) : sitting.seats.length === 0 ? (
        <EmptyState title="There are no students in this sitting" action={<a href="/groups">Go to groups</a>}>
          Add students to the group and they appear here.
        </EmptyState>
      ) : (
        <>
          <StudentGrid
            sitting={sitting}
            seats={shown}
            nameOf={nameOf}
            order={order}
            setOrder={setOrder}
            currentId={studentId}
            choose={setStudentId}
            picked={picked}
            pick={pick}
          />
          <GlyphLegend notRead={sitting.progress.notRead > 0} />
        </>
      )}
    </TwoColumns>
  );
}

interface StateFilterProps {
  seats: Seat[];
  state: StateGroup | null;
  choose: (state: StateGroup | null) => void;
}

/** The numbers everyone asks for, each a filter of the grid. */
function StateFilter({ seats, state, choose }: StateFilterProps) {
  const words: [StateGroup, string][] = [
    ['notStarted', 'not started'],
    ['working', 'working'],
    ['in', 'handed in'],
  ];
  return (
    <div className={styles.filters} role="group" aria-label="Show only">
      {words.map(([name, word]) => (
        <button
          key={name}
          type="button"
          className={styles.filter}
          aria-pressed={state === name}
          onClick={() => choose(state === name ? null : name)}
        >
          <strong>{seats.filter((seat) => stateGroups[name].includes(seat.state)).length}</strong> {word}
        </button>
      ))}
    </div>
  );
}
