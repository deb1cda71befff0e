import { Checkbox, Radio } from '@mantine/core';
import { memo } from 'react';
import { isDeepEqual } from 'remeda';
import type { Question } from '@/core/kinds';
import { optionLetter } from '@/core/kinds/optionLetter';
import type { SchemeGroup, SchemeLine } from '@/core/kinds/schemeLine';
import { schemePoints } from '@/core/kinds/schemePoints';
import { wholeScheme } from '@/core/marking/scheme';
import { counted, points } from '@/words/format';
import { KeyHint } from '@/ui/KeyHint';
import styles from './mark.module.css';

interface SchemeChecksProps {
  question: Question;
  /** The lines met. */
  met: readonly string[];
  /** The lines that only some of equal answers have. */
  some?: readonly string[];
  switchLine: (lineId: string) => void;
  /** Whether a line's letter is its key here. */
  keys: boolean;
}

/** The lines of a scheme to switch on and off; levels of a criterion, one of them at a time. */
export const SchemeChecks = memo(function SchemeChecks({
  question,
  met,
  some = [],
  switchLine,
  keys,
}: SchemeChecksProps) {
  const scheme = wholeScheme(question);
  const { lines, groups } = scheme;
  const known = new Set(groups.map(({ id }) => id));
  const letterOf = (line: SchemeLine) => optionLetter(lines.indexOf(line));
  const labelOf = (line: SchemeLine) => (
    <>
      {keys ? <KeyHint keys={letterOf(line)} /> : `${letterOf(line)} `} {line.text}{' '}
      <span className={styles.soft}>
        {line.points > 0 ? '+' : ''}
        {points(line.points)}
      </span>
    </>
  );
  const check = (line: SchemeLine) => (
    <Checkbox
      key={line.id}
      size="sm"
      checked={met.includes(line.id)}
      indeterminate={some.includes(line.id)}
      onChange={() => switchLine(line.id)}
      label={labelOf(line)}
    />
  );
  const level = (line: SchemeLine) => (
    <Radio
      key={line.id}
      size="sm"
      // Each stands by itself for the keys: picking it again takes it away.
      name={`level-${line.id}`}
      checked={met.includes(line.id)}
      onChange={() => undefined}
      onClick={() => switchLine(line.id)}
      label={labelOf(line)}
    />
  );
  return (
    <>
      {lines.filter(({ groupId }) => !known.has(groupId ?? '')).map(check)}
      {groups.map((group) => {
        const inside = lines.filter(({ groupId }) => groupId === group.id);
        return (
          <fieldset key={group.id} className={styles.criterion}>
            <legend>
              {group.text || (group.as === 'levels' ? 'Level' : 'Together')}
              <span className={styles.soft}> {groupWords(group, inside, met)}</span>
            </legend>
            {inside.map(group.as === 'levels' ? level : check)}
          </fieldset>
        );
      })}
    </>
  );
}, isDeepEqual);

/** "2 of at most 4", "3 of 6", "pick one": where a group stands. */
function groupWords(group: SchemeGroup, lines: readonly SchemeLine[], met: readonly string[]): string {
  const any = lines.some(({ id }) => met.includes(id));
  if (group.as === 'levels') {
    const best = Math.max(...lines.map((line) => line.points));
    return any
      ? `${points(lines.find(({ id }) => met.includes(id))?.points ?? 0)} of ${points(best)}`
      : 'pick one';
  }
  const worth = schemePoints({ lines, groups: [group] }, met, Number.POSITIVE_INFINITY);
  if (group.cap === undefined) return counted(worth, 'point');
  return any ? `${points(worth)} of at most ${points(group.cap)}` : `at most ${points(group.cap)}`;
}
