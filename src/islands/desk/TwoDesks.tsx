import { Button } from '@mantine/core';
import { useEffect, useId, useRef, useState } from 'react';
import {
  isAsked,
  sideOf,
  type Difference,
  type Side,
  type SideFacts,
  type Topic,
} from '@/core/formats/backup/twoDesks';
import { useNow } from '@/ui/clock';
import { keptWords, sideWords, topicWords } from '@/words/computers';
import { counted, dayAndTime } from '@/words/format';
import styles from './TwoDesks.module.css';

interface TwoDesksProps {
  differences: readonly Difference[];
  /** What the other computer is called. */
  there: string;
  /** That the last changes from there did not come; '' where they did. */
  unanswered: string;
  /** How many students were forgotten on one of both. */
  forgotten: number;
  take: (choices: [Topic, Side][]) => void;
  cancel: () => void;
}

/** A desk that was changed on two computers, side by side by sitting and paper: of each one is taken, both are kept as they were. */
export function TwoDesks({ differences, there, unanswered, forgotten, take, cancel }: TwoDesksProps) {
  const [choices, setChoices] = useState<ReadonlyMap<Topic, Side>>(new Map());
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    heading.current?.focus();
    heading.current?.scrollIntoView({ block: 'start' });
  }, []);
  const both = differences.filter(isAsked);
  const alone = differences.filter((each) => !isAsked(each));
  const names = { here: 'this computer', there };
  const isOpen = ({ goesWith }: Difference) =>
    goesWith === null || !both.some(({ topic }) => topic === goesWith);
  const left = both.filter((each) => isOpen(each) && !choices.has(each.topic)).length;
  const all = (side: Side) => setChoices(new Map(both.map(({ topic }) => [topic, side])));
  return (
    <section className={styles.both} aria-label="Changed on both computers">
      <h3 ref={heading} tabIndex={-1}>
        Changed on both computers
      </h3>
      <p>
        Neither knew of the other. Choose which to take of each. {keptWords(forgotten)}, under{' '}
        <em>Restore a backup</em>.
      </p>
      {unanswered && <p role="alert">{unanswered}</p>}
      <div className={styles.all}>
        <Button size="compact-sm" onClick={() => all('here')}>
          All as on this computer
        </Button>
        <Button size="compact-sm" onClick={() => all('there')}>
          All as on {there}
        </Button>
      </div>
      {both.map((each) => (
        <Topics
          key={each.topic}
          difference={each}
          names={names}
          side={isOpen(each) ? choices.get(each.topic) : sideOf(each, choices)}
          open={isOpen(each)}
          choose={(side) => setChoices(new Map([...choices, [each.topic, side]]))}
        />
      ))}
      {alone.length > 0 && (
        <>
          <h3>Changed on one computer only</h3>
          <p className={styles.soft}>Taken from there by itself.</p>
          <ul className={styles.alone}>
            {alone.map((each) => (
              <li key={each.topic}>
                {topicWords(each)}, as on {names[sideOf(each, choices)]}
              </li>
            ))}
          </ul>
        </>
      )}
      <div className={styles.all}>
        <Button variant="filled" disabled={left > 0} onClick={() => take([...choices])}>
          Take the desk over like this
        </Button>
        <Button onClick={cancel}>Cancel</Button>
        {left > 0 && <span role="status">{counted(left, 'choice')} left to make</span>}
      </div>
    </section>
  );
}

interface TopicsProps {
  difference: Difference;
  names: Record<Side, string>;
  side: Side | undefined;
  /** Whether it can be chosen by itself. */
  open: boolean;
  choose: (side: Side) => void;
}

function Topics({ difference, names, side, open, choose }: TopicsProps) {
  const id = useId();
  const title = topicWords(difference);
  return (
    <fieldset className={styles.topic} disabled={!open}>
      <legend>{title}</legend>
      {!open && (
        <p className={styles.soft}>
          Goes with its paper: the two computers have another version of it under the same number.
        </p>
      )}
      <div className={styles.sides}>
        {(['here', 'there'] as const).map((each) => (
          <label key={each} className={styles.side} data-chosen={side === each || undefined}>
            <input type="radio" name={id} checked={side === each} onChange={() => choose(each)} />
            <span>
              As on <strong>{names[each]}</strong>
              <SideLine facts={difference[each]} />
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function SideLine({ facts }: { facts: SideFacts }) {
  const now = useNow(60_000);
  return (
    <span className={styles.soft}>
      {sideWords(facts)}
      {facts.lastAt !== null && `, last changed ${dayAndTime(facts.lastAt, now)}`}
    </span>
  );
}
