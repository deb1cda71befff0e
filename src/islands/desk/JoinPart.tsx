import { Button, NativeSelect } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { groupBy } from '@/core/basics/groupBy';
import type { ClashChoice, PartClash } from '@/core/formats/backup/joinPart';
import type { PartFound } from '@/desk/PutBack';
import { dayAndTime } from '@/words/format';
import { choiceWords, clashTitle, clashWords, partCountWords } from '@/words/deskPart';
import styles from './BackupPage.module.css';

interface JoinPartProps {
  found: PartFound;
  now: number;
  join: (choices: [string, ClashChoice][]) => void;
  cancel: () => void;
}

/** What a part of another desk would bring, and what of it clashes with what is here: asked before anything is done. */
export function JoinPart({ found: { part, savedAt, plan }, now, join, cancel }: JoinPartProps) {
  const [choices, setChoices] = useState<ReadonlyMap<string, ClashChoice>>(new Map());
  const heading = useRef<HTMLHeadingElement>(null);
  // It stands below what was pressed.
  useEffect(() => {
    heading.current?.focus();
    heading.current?.scrollIntoView({ block: 'start' });
  }, []);
  const choose = (clashes: readonly PartClash[], choice: ClashChoice) =>
    setChoices(new Map([...choices, ...clashes.map(({ id }) => [id, choice] as const)]));
  const chosen = (clash: PartClash) => choices.get(clash.id) ?? clash.choices[0];
  const alike = [
    ...groupBy(plan.clashes, ({ what, is, choices: can }) => `${what} ${is} ${can.join()}`).values(),
  ].flatMap((clashes) => (clashes[0] ? [{ first: clashes[0], clashes }] : []));
  return (
    <section className={styles.part} aria-label={`Take in: ${part}`}>
      <h2 ref={heading} tabIndex={-1}>
        Take in: {part}
      </h2>
      <p>
        Saved {dayAndTime(savedAt, now)}. New on this desk: {partCountWords(plan.fresh)}. Here already and the
        same: {partCountWords(plan.same)}. Nothing else on this desk changes, and it can be undone.
      </p>
      {alike.map(({ first, clashes }) => (
        <div key={`${first.what} ${first.is} ${first.choices.join()}`} className={styles.clashes}>
          <h3>{clashTitle(first, clashes.length)}</h3>
          {clashes.length > 1 && first.choices.length > 1 && (
            <NativeSelect
              size="xs"
              label={`All ${clashes.length}`}
              value={new Set(clashes.map(chosen)).size === 1 ? chosen(first) : ''}
              onChange={(event) => {
                const choice = first.choices.find((each) => each === event.currentTarget.value);
                if (choice) choose(clashes, choice);
              }}
              data={[
                ...(new Set(clashes.map(chosen)).size === 1 ? [] : [{ value: '', label: 'Not alike' }]),
                ...first.choices.map((value) => ({ value, label: choiceWords(first, value) })),
              ]}
            />
          )}
          <ul className={styles.clashList}>
            {clashes.map((clash) => (
              <li key={clash.id}>
                <span>{clashWords(clash)}</span>
                {clash.choices.length > 1 && (
                  <NativeSelect
                    size="xs"
                    aria-label={clashWords(clash)}
                    value={chosen(clash)}
                    onChange={(event) => {
                      const choice = clash.choices.find((each) => each === event.currentTarget.value);
                      if (choice) choose([clash], choice);
                    }}
                    data={clash.choices.map((value) => ({ value, label: choiceWords(clash, value) }))}
                  />
                )}
              </li>
            ))}
          </ul>
        </div>
      ))}
      <div className={styles.row}>
        <Button variant="filled" onClick={() => join(plan.clashes.map((clash) => [clash.id, chosen(clash)]))}>
          Take it into this desk
        </Button>
        <Button onClick={cancel}>Cancel</Button>
      </div>
    </section>
  );
}
