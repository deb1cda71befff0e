import { marksThatCount } from '@/core/scoring/marksThatCount';
import { wholeAttempt } from '@/core/model/mark';
import { fullName } from '@/core/model/names';
import type { Seat } from '@/core/seats/seats';
import { actWhenRoom } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import type { MarkChange } from '@/core/marking/markChanges';
import { markAnswers } from '@/store/marks';
import { isoNow } from '@/ui/clock';
import { KeptTextarea } from '@/ui/KeptTextarea';
import { MarginBlock } from '@/ui/TwoColumns';

/** Words to the whole attempt: for the student, and for markers only. */
export function WholeComment({ sitting, seat }: { sitting: SittingData; seat: Seat }) {
  const mark = marksThatCount(seat.marks).get(wholeAttempt);
  const keep = (change: MarkChange, said: string) => {
    const place = {
      sittingId: sitting.sitting.id,
      questionId: wholeAttempt,
      attemptIds: [seat.attempt?.id ?? ''],
    };
    const whole = `${fullName(seat.student)}: ${said}`;
    void actWhenRoom(() => markAnswers(place, change, whole, isoNow(), `${said}-${seat.attempt?.id ?? ''}`));
  };
  return (
    <MarginBlock title="To the whole script">
      <KeptTextarea
        key={`comment ${seat.attempt?.id}`}
        size="xs"
        aria-label="Comment on the whole script"
        placeholder="Comment for the student"
        value={mark?.comment ?? ''}
        onKeep={(comment) => keep({ comment }, 'comment on the whole script')}
      />
      <KeptTextarea
        key={`note ${seat.attempt?.id}`}
        size="xs"
        aria-label="Private note on the whole script, no student sees it"
        placeholder="Private note, for markers only"
        value={mark?.note ?? ''}
        onKeep={(note) => keep({ note }, 'private note on the whole script')}
      />
    </MarginBlock>
  );
}
