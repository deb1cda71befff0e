import { ActionIcon, Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { IconX } from '@/ui/icons';
import { nanoid } from 'nanoid';
import type { Forgive } from '@/core/kinds/forgiving';
import type { AcceptedAnswer } from '@/core/kinds/shortText/schema';
import { roundPoints } from '@/core/basics/points';
import { points } from '@/words/format';
import { PointsField } from '@/ui/PointsField';
import styles from '../edit.module.css';

interface AcceptedRowsProps {
  accepted: AcceptedAnswer[];
  /** What all the points are, for the share in points. */
  max: number;
  /** Goes before the names of the fields where there are several such lists: "Gap 1, ". */
  prefix?: string;
  /** Whether an answer may also be accepted for what it contains. */
  withMatch?: boolean;
  keep: (accepted: AcceptedAnswer[], said: string, field?: string) => void;
}

/** Accepted answers, each with its share of the points and its comment. */
export function AcceptedRows({ accepted, max, prefix = '', withMatch = false, keep }: AcceptedRowsProps) {
  const change = (next: AcceptedAnswer, said: string, field?: string) =>
    keep(
      accepted.map((each) => (each.id === next.id ? next : each)),
      said,
      field,
    );
  return (
    <>
      {accepted.map((each, index) => (
        <AcceptedRow
          key={each.id}
          accepted={each}
          name={`${prefix}${prefix ? 'a' : 'A'}ccepted answer ${index + 1}`}
          max={max}
          withMatch={withMatch}
          change={change}
          remove={() =>
            keep(
              accepted.filter((other) => other.id !== each.id),
              `Accepted answer ${index + 1} removed`,
            )
          }
        />
      ))}
      <Button
        size="compact-sm"
        className={styles.add}
        onClick={() =>
          keep([...accepted, { id: nanoid(12), text: '', share: 1, comment: '' }], 'Accepted answer added')
        }
      >
        Add an accepted answer
      </Button>
    </>
  );
}

interface AcceptedRowProps {
  accepted: AcceptedAnswer;
  name: string;
  max: number;
  withMatch: boolean;
  change: (accepted: AcceptedAnswer, said: string, field?: string) => void;
  remove: () => void;
}

function AcceptedRow({ accepted, name, max, withMatch, change, remove }: AcceptedRowProps) {
  return (
    <div className={`${styles.row} ${withMatch ? styles.matched : styles.accepted}`}>
      {withMatch && (
        <NativeSelect
          size="sm"
          aria-label={`${name} matches when the answer`}
          value={accepted.match ?? 'is'}
          data={[
            { value: 'is', label: 'is' },
            { value: 'containsAll', label: 'contains all of' },
          ]}
          onChange={(event) =>
            change(
              { ...accepted, match: event.currentTarget.value === 'containsAll' ? 'containsAll' : 'is' },
              `${name} changed`,
            )
          }
        />
      )}
      <TextInput
        id={`field-accepted-${accepted.id}`}
        aria-label={name}
        size="sm"
        placeholder={accepted.match === 'containsAll' ? 'words or phrases, separated by commas' : ''}
        value={accepted.text}
        onChange={(event) =>
          change(
            { ...accepted, text: event.currentTarget.value },
            `${name} edited`,
            `accepted-${accepted.id}`,
          )
        }
      />
      <ShareField
        name={name}
        share={accepted.share}
        max={max}
        change={(share) => change({ ...accepted, share }, `Share of ${name} changed`, `share-${accepted.id}`)}
      />
      <TextInput
        aria-label={`Comment on ${name}`}
        placeholder="Comment"
        size="sm"
        value={accepted.comment}
        onChange={(event) =>
          change(
            { ...accepted, comment: event.currentTarget.value },
            `Comment on ${name}`,
            `accepted-comment-${accepted.id}`,
          )
        }
      />
      <TakeOut what={name} onClick={remove} />
    </div>
  );
}

/** A share of the points in percent, with what that is in points. */
export function ShareField({
  name,
  share,
  max,
  min = 0,
  change,
}: {
  name: string;
  share: number;
  max: number;
  min?: number;
  change: (share: number) => void;
}) {
  return (
    <PointsField
      size="sm"
      w="100%"
      label={`Percent of the points for ${name}`}
      value={Math.round(share * 10_000) / 100}
      min={min}
      max={100}
      rightSection={<span className={styles.worth}>% {points(roundPoints(share * max))} p</span>}
      rightSectionWidth={62}
      onPoints={(percent) => {
        if (percent !== null) change(percent / 100);
      }}
    />
  );
}

/** The small button that takes one row out. */
export function TakeOut({ what, onClick }: { what: string; onClick: () => void }) {
  return (
    <ActionIcon variant="subtle" color="gray" aria-label={`Remove ${what}`} onClick={onClick}>
      <IconX size={16} />
    </ActionIcon>
  );
}

const forgivenWords = {
  case: 'capital letters',
  spaces: 'spaces',
  accents: 'accents',
  punctuation: 'punctuation',
} as const;

/** What does not matter when answers are compared. */
export function ForgiveChoice({
  forgive,
  change,
}: {
  forgive: Forgive;
  change: (forgive: Forgive, said: string) => void;
}) {
  return (
    <div className={styles.choices} role="group" aria-label="What to ignore">
      <span className={styles.label}>Ignore:</span>
      {(Object.keys(forgivenWords) as (keyof typeof forgivenWords)[]).map((what) => (
        <Checkbox
          key={what}
          size="sm"
          label={forgivenWords[what]}
          checked={forgive[what] ?? false}
          onChange={(event) =>
            change({ ...forgive, [what]: event.currentTarget.checked }, 'What to ignore changed')
          }
        />
      ))}
    </div>
  );
}
