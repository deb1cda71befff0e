import { Checkbox } from '@mantine/core';
import { fullName } from '@/core/model/names';
import type { RosterChanges } from '@/core/people/rosterChanges';
import type { BringChoices } from '@/store/people';
import { counted } from '@/words/format';
import styles from './groups.module.css';

const fieldWords: Record<string, string> = {
  familyName: 'family name',
  givenName: 'given name',
  number: 'student number',
  email: 'email',
};

interface WhatChangesProps {
  changes: RosterChanges;
  choices: BringChoices;
  choose: (choices: BringChoices) => void;
}

/** Who is new, who is known and otherwise in the list, and who is gone: before anything is done. */
export function WhatChanges({ changes, choices, choose }: WhatChangesProps) {
  const { added, changed, same, gone } = changes;
  if (changed.length + same.length + gone.length === 0) return null;
  return (
    <section aria-label="What will change">
      <p>
        <strong>{added.length}</strong> new, <strong>{changed.length}</strong> changed,{' '}
        <strong>{same.length}</strong> unchanged, <strong>{gone.length}</strong> in the group but not in the
        list.
      </p>
      {changed.length > 0 && (
        <>
          <Checkbox
            size="sm"
            label="Update details from the list"
            checked={choices.update === true}
            onChange={(event) => choose({ ...choices, update: event.currentTarget.checked })}
          />
          <div className={styles.changes} role="region" tabIndex={0} aria-label="Details that differ">
            <ul>
              {changed.map(({ student, changes: fields }) => (
                <li key={student.id}>
                  {fullName(student)}:{' '}
                  {fields
                    .map(
                      ({ field, before, after }) =>
                        `${fieldWords[field] ?? field} ${before ? `“${before}” becomes` : 'is'} “${after}”`,
                    )
                    .join(', ')}
                </li>
              ))}
            </ul>
          </div>
        </>
      )}
      {gone.length > 0 && (
        <>
          <Checkbox
            size="sm"
            label={`Remove ${counted(gone.length, 'student')} who ${gone.length === 1 ? 'isn’t' : 'aren’t'} in the list from the group`}
            checked={choices.takeOutGone === true}
            onChange={(event) => choose({ ...choices, takeOutGone: event.currentTarget.checked })}
          />
          <div className={styles.changes} role="region" tabIndex={0} aria-label="Students not in the list">
            <ul>
              {gone.map((student) => (
                <li key={student.id}>{fullName(student)}</li>
              ))}
            </ul>
          </div>
        </>
      )}
    </section>
  );
}
