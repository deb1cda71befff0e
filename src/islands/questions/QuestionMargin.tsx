import { Button, Checkbox, NativeSelect, TagsInput, TextInput } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { nanoid } from 'nanoid';
import { percentFrom } from '@/core/basics/percent';
import type { ReactNode } from 'react';
import { kindOf, type Question } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import { PointStep, type Hint } from '@/core/kinds/QuestionKind';
import { pointStepOf } from '@/core/marking/typedPoints';
import { points } from '@/words/format';
import { KeyHint } from '@/ui/KeyHint';
import { PointsField } from '@/ui/PointsField';
import { MarginBlock } from '@/ui/TwoColumns';
import type { KeepQuestion } from '../kinds/KindView';
import { TakeOut } from '../kinds/text/AcceptedRows';
import { SchemeEdit } from '../kinds/text/SchemeEdit';
import { WaysChoice } from '../kinds/working/Edit';
import { withWorking } from '../../core/kinds/withWorking';
import styles from './questions.module.css';

interface QuestionMarginProps {
  question: Question;
  /** What it is called: "question 3". */
  name: string;
  keep: KeepQuestion<Question>;
  /** What can be done with it as a whole. */
  children?: ReactNode;
}

/** What belongs to the open question: its points, tags, comments and note. */
export function QuestionMargin({ question, name, keep, children }: QuestionMarginProps) {
  const byHand = kindOf(question).scoredBy === 'hand';
  return (
    <MarginBlock
      title={`${name.charAt(0).toUpperCase()}${name.slice(1)}, ${kindOf(question).label.toLowerCase()}`}
    >
      <div className={styles.pointsRow}>
        <PointsField
          id="field-points"
          label={`Points for ${name}`}
          value={question.points}
          onPoints={(value) => {
            if (value !== null)
              keep({ ...question, points: value }, `Points for ${name} changed`, `points-${question.id}`);
          }}
        />
        <span>
          points, {byHand ? 'marked by hand' : 'scored by the key'} <KeyHint keys="Alt P" />
        </span>
      </div>
      {(byHand || question.working) && (
        <NativeSelect
          size="xs"
          label="Points by hand in steps of"
          value={pointStepOf(question)}
          data={[
            { value: '0.25', label: 'quarters' },
            { value: '0.5', label: 'halves' },
            { value: '1', label: 'whole points' },
          ]}
          onChange={(event) => {
            const { data } = PointStep.safeParse(Number(event.currentTarget.value));
            if (data) keep({ ...question, pointStep: data }, `Steps of the points for ${name} changed`);
          }}
        />
      )}
      <TagsInput
        label="Tags"
        size="xs"
        value={question.tags}
        onChange={(tags) => keep({ ...question, tags }, `Tags of ${name}`)}
        clearable={false}
      />
      <CommentField
        label="Comment when right"
        value={question.commentRight}
        change={(commentRight) =>
          keep({ ...question, commentRight }, 'Comment when right', `right-${question.id}`)
        }
      />
      <CommentField
        label="Comment when partly right (else “when wrong”)"
        value={question.commentPart ?? ''}
        change={(commentPart) =>
          keep({ ...question, commentPart }, 'Comment when partly right', `part-${question.id}`)
        }
      />
      <CommentField
        label="Comment when wrong"
        value={question.commentWrong}
        change={(commentWrong) =>
          keep({ ...question, commentWrong }, 'Comment when wrong', `wrong-${question.id}`)
        }
      />
      <div id="field-link">
        <TextInput
          label="Link for further reading, shown with the comments"
          placeholder="https://"
          size="xs"
          value={question.link?.href ?? ''}
          onChange={(event) => {
            const href = event.currentTarget.value;
            keep({ ...question, link: { text: '', ...question.link, href } }, 'Link', `link-${question.id}`);
          }}
        />
        {question.link?.href && (
          <TextInput
            aria-label="Link text"
            placeholder="Link text"
            size="xs"
            mt={4}
            value={question.link.text}
            onChange={(event) => {
              const link = { href: '', ...question.link, text: event.currentTarget.value };
              keep({ ...question, link }, 'Link text', `link-text-${question.id}`);
            }}
          />
        )}
      </div>
      <HintFields question={question} keep={keep} />
      {!byHand && <WorkingFields question={question} keep={keep} />}
      <CommentField
        label="Private note, never shown to students"
        value={question.note}
        change={(note) => keep({ ...question, note }, 'Note', `note-${question.id}`)}
      />
      {children}
    </MarginBlock>
  );
}

/** Hints in their order, each with what it costs. */
function HintFields({ question, keep }: { question: Question; keep: KeepQuestion<Question> }) {
  const hints = question.hints ?? [];
  const keepHint = (next: Hint, said: string, field: string) =>
    keep({ ...question, hints: hints.map((each) => (each.id === next.id ? next : each)) }, said, field);
  return (
    <div className={styles.working} role="group" aria-label="Hints">
      <span className={styles.soft}>Hints, in the order students get them when a sitting offers hints</span>
      {hints.map((hint, index) => (
        <div key={hint.id} className={styles.hint}>
          <GrowingTextarea
            id={`field-hint-${hint.id}`}
            aria-label={`Hint ${index + 1}`}
            size="xs"
            value={hint.text}
            onChange={(event) =>
              keepHint(
                { ...hint, text: event.currentTarget.value },
                `Hint ${index + 1} edited`,
                `hint-${hint.id}`,
              )
            }
          />
          <PointsField
            label={`Percent of the points that hint ${index + 1} costs`}
            max={100}
            value={Math.round(hint.cost * 100)}
            onPoints={(percent) => {
              if (percent !== null)
                keepHint(
                  { ...hint, cost: percent / 100 },
                  `Cost of hint ${index + 1} changed`,
                  `cost-${hint.id}`,
                );
            }}
          />
          <span className={styles.soft}>% off</span>
          <TakeOut
            what={`hint ${index + 1}`}
            onClick={() =>
              keep(
                { ...question, hints: hints.filter((each) => each.id !== hint.id) },
                `Hint ${index + 1} removed`,
              )
            }
          />
        </div>
      ))}
      {hints.length < 10 && (
        <Button
          size="compact-sm"
          onClick={() =>
            keep({ ...question, hints: [...hints, { id: nanoid(12), text: '', cost: 0 }] }, 'Hint added')
          }
        >
          Add a hint
        </Button>
      )}
    </div>
  );
}

/** Whether the way to the answer is asked for, and how it is marked. */
function WorkingFields({ question, keep }: { question: Question; keep: KeepQuestion<Question> }) {
  const { working } = question;
  const [, item] = working ? itemsOf([question]) : [];
  return (
    <div id="field-working" className={styles.working}>
      <Checkbox
        size="sm"
        label="Ask for working too"
        checked={working !== undefined}
        onChange={(event) =>
          keep(
            withWorking(question, event.currentTarget.checked ? 0.5 : null),
            event.currentTarget.checked ? 'Working asked for' : 'Working no longer asked for',
          )
        }
      />
      {working && item && (
        <>
          <div className={styles.pointsRow}>
            <PointsField
              label="Percent of the points by key"
              max={100}
              value={percentFrom(working.keyShare)}
              onPoints={(percent) => {
                if (percent !== null)
                  keep(withWorking(question, percent / 100), 'Key share changed', `keyShare-${question.id}`);
              }}
            />
            <span>
              % by key, {points(item.points)} of {points(question.points)} for the working, marked by hand
            </span>
          </div>
          <WaysChoice
            ways={working.ways ?? ['words']}
            change={(ways) =>
              keep({ ...question, working: { ...working, ways } }, 'Ways to show working changed')
            }
          />
          <SchemeEdit
            value={working}
            worth={item.points}
            change={(marking, said, field) =>
              keep(
                { ...question, working: { ...working, ...marking } },
                said,
                field && `working-${field}-${question.id}`,
              )
            }
          />
        </>
      )}
    </div>
  );
}

function CommentField({
  label,
  value,
  change,
}: {
  label: string;
  value: string;
  change: (value: string) => void;
}) {
  return (
    <GrowingTextarea
      label={label}
      maxRows={6}
      size="xs"
      value={value}
      onChange={(event) => change(event.currentTarget.value)}
    />
  );
}
