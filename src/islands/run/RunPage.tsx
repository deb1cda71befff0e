import { useState } from 'react';
import type { Seat } from '@/core/running/standing';
import { SittingPage } from '@/ui/desk/SittingPage';
import type { SittingData } from '@/ui/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { GroupSelect } from '@/ui/GroupSelect';
import { TwoColumns } from '@/ui/TwoColumns';
import { GlyphLegend } from '@/ui/GlyphLegend';
import { SeatPanel } from './SeatPanel';
import { SeveralPanel } from './SeveralPanel';
import { SittingPanel } from './SittingPanel';
import { StudentGrid } from './StudentGrid';
import { stateGroups, type StateGroup } from './stateWords';
import styles from './run.module.css';

/** Watching a sitting: who has started, what is answered, and what to do for one student. */
export function RunPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="run" tickMs={5_000}>
      {(sitting) => <Watch sitting={sitting} />}
    </SittingPage>
  );
}

function Watch({ sitting }: { sitting: SittingData }) {
  const [group, setGroup] = useState('');
  const [state, setState] = useState<StateGroup | null>(null);
  const [studentId, setStudentId] = useState<string | null>(null);
  const ofGroup = sitting.seats.filter((seat) => !group || seat.student.groupIds.includes(group));
  const shown = ofGroup.filter((seat) => state === null || stateGroups[state].includes(seat.state));
  const current = sitting.seats.find((seat) => seat.student.id === studentId);
  return (
    <TwoColumns
      marginLabel={current ? 'About the student' : 'About the sitting'}
      margin={
        current ? (
          <SeatPanel
            key={current.student.id}
            seat={current}
            sitting={sitting}
            close={() => setStudentId(null)}
          />
        ) : (
          <>
            <SeveralPanel key={`${state} ${group}`} seats={shown} sitting={sitting} />
            <SittingPanel sitting={sitting} />
          </>
        )
      }
    >
      <div className={styles.counts}>
        <StateFilter seats={ofGroup} state={state} choose={setState} />
        <GroupSelect groups={sitting.groups} value={group} choose={setGroup} />
      </div>
      {sitting.seats.length === 0 ? (
        <EmptyState
          title="There are no students in this sitting"
          action={<a href="/groups">To the groups</a>}
        >
          Bring students into the group; they appear here by themselves.
        </EmptyState>
      ) : (
        <>
          <StudentGrid sitting={sitting} seats={shown} currentId={studentId} choose={setStudentId} />
          <GlyphLegend />
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
    ['in', 'in'],
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
