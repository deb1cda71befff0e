import { Checkbox } from '@mantine/core';
import type { ShortText } from '@/core/kinds/shortText/schema';
import styles from '../edit.module.css';
import type { EditProps } from '../KindView';
import { AcceptedRows, ForgiveChoice } from '../text/AcceptedRows';

export function Edit({ question, keep }: EditProps<ShortText>) {
  return (
    <div className={styles.rows} id="field-accepted">
      <div className={`${styles.row} ${styles.matched} ${styles.head}`} aria-hidden>
        <span>When the answer</span>
        <span>this</span>
        <span>it gets</span>
        <span>with this comment</span>
      </div>
      <AcceptedRows
        accepted={question.accepted}
        max={question.points}
        withMatch
        keep={(accepted, said, field) => keep({ ...question, accepted }, said, field)}
      />
      <ForgiveChoice
        forgive={question.forgive}
        change={(forgive, said) => keep({ ...question, forgive }, said)}
      />
      <Checkbox
        size="sm"
        label="A slip of the keys (one letter from four on, two from eight on) is accepted by itself; otherwise you are asked when marking"
        checked={question.acceptsNearMisses ?? false}
        onChange={(event) =>
          keep(
            { ...question, acceptsNearMisses: event.currentTarget.checked },
            event.currentTarget.checked ? 'Typing errors accepted' : 'Typing errors put forward',
          )
        }
      />
    </div>
  );
}
