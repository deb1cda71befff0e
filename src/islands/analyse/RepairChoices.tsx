import { Button, Radio } from '@mantine/core';
import { nanoid } from 'nanoid';
import type { Question } from '@/core/kinds';
import type { RepairRule } from '@/core/kinds/repaired';
import { sameRule, type RepairDraft } from '@/core/repair/draft';
import { keepsWhatWasSeen } from '@/core/repair/keepsWhatWasSeen';
import { repairOffers } from '@/core/repair/offers';
import { say } from '@/desk/act';
import { PointsField } from '@/ui/PointsField';
import { counted } from '@/words/format';
import { editorOf } from '../kinds/editors';
import type { Analysis, QuestionRow } from '@/desk/useAnalysis';
import styles from './repair.module.css';

interface EditingProps {
  draft: RepairDraft;
  setDraft: (draft: RepairDraft) => void;
  row: QuestionRow;
}

/** What the answers themselves suggest: another option as the key, one more answer accepted. */
export function QuickRepairs({
  row,
  analysis,
  draft,
  setDraft,
  paperQuestion,
}: EditingProps & { analysis: Analysis; paperQuestion: Question }) {
  const { question } = row;
  const answers = analysis.answersOf(question);
  if (question.id !== paperQuestion.id) return null;
  const offers = repairOffers(paperQuestion, answers, analysis.seats, nanoid);
  if (offers.length === 0) return null;
  return (
    <section aria-label="Answers that give less now">
      <h3 className={styles.offersHead}>What was answered and gives less now</h3>
      <ul className={styles.offers}>
        {offers.map(({ category, keyed, accepting }) => (
          <li key={category.id}>
            <span className={styles.offer}>
              “{category.label}” <span className={styles.soft}>{counted(category.count, 'student')}</span>
            </span>
            {keyed && (
              <Button
                size="compact-sm"
                aria-pressed={same(draft.changed, keyed)}
                aria-label={`“${category.label}” as the key instead`}
                onClick={() => setDraft({ ...draft, changed: keyed, rule: null })}
              >
                as the key instead
              </Button>
            )}
            {accepting.map(({ share, changed }) => (
              <Button
                key={share}
                size="compact-sm"
                aria-pressed={same(draft.changed, changed)}
                aria-label={`“${category.label}” ${givenFor(share)}`}
                onClick={() => setDraft({ ...draft, changed, rule: null })}
              >
                {givenFor(share)}
              </Button>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}

const givenFor = (share: number) => (share === 1 ? 'as right too' : 'for half');
const same = (a: Question | null, b: Question) => JSON.stringify(a) === JSON.stringify(b);

const rules: { value: string; rule: RepairRule | null; label: string }[] = [
  { value: 'key', rule: null, label: 'Score it by its key and its marks' },
  { value: 'everyone', rule: { kind: 'everyone' }, label: 'Everyone gets all its points' },
  { value: 'answered', rule: { kind: 'answered' }, label: 'Everyone who answered gets all its points' },
  {
    value: 'smaller',
    rule: { kind: 'dropped', maximum: 'smaller' },
    label: 'It doesn’t count: the maximum gets smaller, and the others stay as they are',
  },
  {
    value: 'same',
    rule: { kind: 'dropped', maximum: 'same' },
    label: 'It doesn’t count: the maximum stays, and each student’s share of the others stands for it',
  },
];

export function RuleChoice({ draft, setDraft, row }: EditingProps) {
  const chosen = rules.find(({ rule }) => sameRule(rule, draft.rule))?.value ?? 'key';
  const standing = row.question.repaired?.rule ?? null;
  return (
    <Radio.Group
      className={styles.rules ?? ''}
      label="Points for this question"
      value={chosen}
      onChange={(value) => {
        const rule = rules.find((each) => each.value === value)?.rule ?? null;
        // Where the key does not give the points, another key would say nothing.
        setDraft({ ...draft, rule, changed: rule === null ? draft.changed : null });
      }}
    >
      {rules.map(({ value, rule, label }) => (
        <Radio
          key={value}
          size="sm"
          value={value}
          label={sameRule(rule, standing) ? `${label} (as now)` : label}
        />
      ))}
    </Radio.Group>
  );
}

/** The question as in Write: its key, its points, its rule for part points, its tolerance. */
export function EditKey({ draft, setDraft, row }: EditingProps) {
  const question = draft.changed ?? draft.before;
  const Edit = editorOf(question);
  const change = (changed: Question) => {
    if (!keepsWhatWasSeen(draft.before, changed)) {
      say('Students saw this and may have chosen it: it stays. Give it no points instead.', true);
      return;
    }
    // What the key says holds only where no rule takes its place.
    setDraft({
      ...draft,
      rule: null,
      changed: JSON.stringify(changed) === JSON.stringify(draft.before) ? null : changed,
    });
  };
  return (
    <section aria-label="Key and points">
      <div className={styles.editHead}>
        <h3>Another key, other points</h3>
        <PointsField
          label={`Points for question ${row.number}`}
          value={question.points}
          onPoints={(points) => points !== null && change({ ...question, points })}
        />
        <span>points</span>
        {draft.changed && (
          <Button size="compact-sm" onClick={() => setDraft({ ...draft, changed: null })}>
            Back to the key as it is
          </Button>
        )}
      </div>
      <Edit question={question} keep={change} />
    </section>
  );
}
