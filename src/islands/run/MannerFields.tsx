import { Checkbox, NumberInput, Radio } from '@mantine/core';
import type { PracticeRules, SittingManner } from '@/core/model/sitting';
import type { Shows } from '@/core/model/release';
import { ShowsChoice } from '../../desk/ShowsChoice';
import styles from './run.module.css';

interface MannerFieldsProps {
  manner: SittingManner;
  change: (part: SittingManner) => void;
  /** Why questions and practice can no longer be changed; '': they can. */
  fixed?: string;
}

const nothing: Shows = {
  total: false,
  points: false,
  answers: false,
  rightOrWrong: false,
  accepted: false,
  comments: false,
};

const usualPractice: PracticeRules = { tries: 3, lossPerTry: 0.25, hints: true, showAnswer: true };

type Way = 'all' | 'back' | 'noBack';

/** How the paper is sat: all at once or one by one, as practice, and what is seen straight after handing in. */
export function MannerFields({ manner, change, fixed = '' }: MannerFieldsProps) {
  const way: Way = manner.oneByOne ? (manner.noBack ? 'noBack' : 'back') : 'all';
  return (
    <>
      <fieldset className={styles.field} disabled={fixed !== ''}>
        <legend>Questions</legend>
        {fixed && <p className={styles.soft}>How questions are shown {fixed}</p>}
        <Radio.Group
          aria-label="Questions shown"
          value={way}
          onChange={(value) => change({ oneByOne: value !== 'all', noBack: value === 'noBack' })}
        >
          <div className={styles.choices}>
            <Radio value="all" label="all on one page" />
            <Radio value="back" label="one at a time, can go back" />
            <Radio value="noBack" label="one at a time, can’t go back" />
          </div>
        </Radio.Group>
        <Checkbox
          label="Each student gets them in a different order"
          checked={manner.shuffle === true}
          onChange={(event) => change({ shuffle: event.currentTarget.checked })}
        />
      </fieldset>
      <fieldset className={styles.field} disabled={fixed !== ''}>
        <legend>Practice</legend>
        {fixed && <p className={styles.soft}>Practice {fixed}</p>}
        <Checkbox
          label="Students see at once how they did on each question"
          checked={manner.practice !== undefined}
          onChange={(event) => change({ practice: event.currentTarget.checked ? usualPractice : undefined })}
        />
        {manner.practice && (
          <PracticeFields practice={manner.practice} change={(practice) => change({ practice })} />
        )}
      </fieldset>
      <fieldset className={styles.field}>
        <legend>Straight after handing in</legend>
        <Checkbox
          label="Students see something straight away"
          checked={manner.after !== undefined}
          onChange={(event) =>
            change({ after: event.currentTarget.checked ? { ...nothing, total: true } : undefined })
          }
        />
        {manner.after && (
          <div className={styles.inset}>
            <ShowsChoice shows={manner.after} setShows={(after) => change({ after })} without={['grade']} />
          </div>
        )}
      </fieldset>
    </>
  );
}

interface PracticeFieldsProps {
  practice: PracticeRules;
  change: (practice: PracticeRules) => void;
}

function PracticeFields({ practice, change }: PracticeFieldsProps) {
  return (
    <div className={styles.inset}>
      <NumberInput
        label="Tries for each question"
        description="Empty: no limit."
        size="sm"
        w="100%"
        maw="16rem"
        min={1}
        max={20}
        allowDecimal={false}
        value={practice.tries ?? ''}
        onChange={(value) =>
          change({ ...practice, tries: Number(value) >= 1 ? Math.min(20, Number(value)) : null })
        }
      />
      <NumberInput
        label="Percent of the points lost with each further try"
        size="sm"
        w="100%"
        maw="24rem"
        min={0}
        max={100}
        allowDecimal={false}
        value={Math.round(practice.lossPerTry * 100)}
        onChange={(value) =>
          change({ ...practice, lossPerTry: Math.min(100, Math.max(0, Number(value) || 0)) / 100 })
        }
      />
      <Checkbox
        label="Students can use hints; each costs points"
        checked={practice.hints}
        onChange={(event) => change({ ...practice, hints: event.currentTarget.checked })}
      />
      <Checkbox
        label="Students can give up and see the accepted answer"
        checked={practice.showAnswer}
        onChange={(event) => change({ ...practice, showAnswer: event.currentTarget.checked })}
      />
    </div>
  );
}
