import { Button, Slider, TextInput, Progress } from '@mantine/core';
import { memo } from 'react';
import { flushSync } from 'react-dom';
import { sumBy } from 'remeda';
import type { AnswerEntry, PileInSight } from '@/core/marking/piles/arrange';
import { counted } from '@/words/format';
import { KeyHint } from '@/ui/KeyHint';
import { MarginBlock } from '@/ui/TwoColumns';
import { useSteady } from '@/ui/useSteady';
import { useTyped } from '@/ui/useTyped';
import type { Piles } from './usePiles';
import { toAnswers } from './toAnswers';
import styles from './mark.module.css';

/** What can be done to the pile of the current answer. */
export interface PileActs {
  agree: () => void;
  takeOut: () => void;
  split: () => void;
  joinAbove: () => void;
  name: (name: string) => void;
}

export const pileNameId = 'pile-name';

/** The pile that the current answer is in: whether it is marked as one, and how it is changed. */
export function PileBlock({ entry, acts }: { entry: AnswerEntry; acts: PileActs }) {
  const { pile } = entry;
  return (
    <MarginBlock title={pile ? 'This pile' : 'Not in a pile'}>
      {pile && (
        <>
          <p className={pile.agreed ? undefined : styles.forward}>{pileWords(pile)}</p>
          <PileName key={pile.id} name={pile.name} keep={acts.name} />
        </>
      )}
      <div className={styles.pileActs}>
        {pile && (
          <Button size="compact-sm" variant={pile.agreed ? 'default' : 'light'} onClick={acts.agree}>
            {pile.agreed ? 'Mark one by one again' : 'Mark as one'}&ensp;
            <KeyHint keys="Shift Enter" />
          </Button>
        )}
        {pile && (
          <Button size="compact-sm" onClick={acts.takeOut}>
            Take this answer out&ensp;
            <KeyHint keys="Shift Delete" />
          </Button>
        )}
        {pile && !entry.heads && (
          <Button size="compact-sm" onClick={acts.split}>
            Split the pile here&ensp;
            <KeyHint keys="Shift ↓" />
          </Button>
        )}
        <Button size="compact-sm" onClick={acts.joinAbove}>
          Join with the answer above&ensp;
          <KeyHint keys="Shift ↑" />
        </Button>
      </div>
    </MarginBlock>
  );
}

/** "4 wordings, 9 answers, put forward as one." */
export function pileWords(pile: PileInSight): string {
  const answers = sumBy(pile.members, ({ answers: all }) => all.length);
  const counts = `${counted(pile.members.length, 'wording')}, ${counted(answers, 'answer')}`;
  return pile.agreed ? `${counts}, marked as one` : `${counts}, put forward`;
}

function PileName({ name, keep }: { name: string; keep: (name: string) => void }) {
  const { typed, type, forget, leave } = useTyped(name);
  return (
    <TextInput
      id={pileNameId}
      size="xs"
      label={
        <>
          Name of the pile <KeyHint keys="F2" />
        </>
      }
      maxLength={500}
      value={typed ?? name}
      onChange={(event) => type(event.currentTarget.value)}
      onBlur={() => {
        leave();
        if (typed !== null && typed !== name) keep(typed.trim());
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== 'Escape') return;
        event.preventDefault();
        // Before the field is left, which would keep it.
        if (event.key === 'Escape') flushSync(forget);
        toAnswers();
      }}
    />
  );
}

/** With fewer different answers it is done before a button could be pressed. */
const longLook = 1_000;

/** How near answers have to be to be put forward as one, with what that comes to. */
export function NearnessSlider({ piles }: { piles: Piles }) {
  const { entries, threshold, setThreshold, looking } = piles;
  const change = useSteady(setThreshold);
  const stop = looking?.stop ?? null;
  const heads = entries.filter(({ pile, heads: first }) => pile !== null && first).length;
  const alone = entries.filter(({ pile, group }) => pile === null && !group.blank).length;
  return (
    <div>
      <Nearness threshold={threshold} change={change} />
      <p role="status" className={styles.soft}>
        {stop ? 'Looking for similar answers…' : `${counted(heads, 'pile')}, ${alone} left alone`}
      </p>
      {stop && entries.length > longLook && (
        <>
          <Progress value={(looking?.done ?? 0) * 100} aria-label="Looked at so far" />
          <Button size="compact-sm" onClick={stop}>
            Stop looking
          </Button>
        </>
      )}
    </div>
  );
}

const Nearness = memo(function Nearness({
  threshold,
  change,
}: {
  threshold: number;
  change: (threshold: number) => void;
}) {
  return (
    <>
      <p id="nearness" className={styles.soft}>
        How alike answers must be to go in a pile
      </p>
      <Slider
        size="sm"
        min={0.4}
        max={1}
        step={0.05}
        value={threshold}
        onChange={change}
        label={(value) => `${Math.round(value * 100)}%`}
        thumbProps={{ 'aria-labelledby': 'nearness', 'aria-valuetext': `${Math.round(threshold * 100)}%` }}
      />
    </>
  );
});
