import { Button, NativeSelect, TextInput } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { nanoid } from 'nanoid';
import { optionLetter } from '@/core/kinds/optionLetter';
import type { SchemeGroup, SchemeLine } from '@/core/kinds/schemeLine';
import { schemeReach } from '@/core/kinds/schemePoints';
import { points } from '@/words/format';
import { PointsField } from '@/ui/PointsField';
import styles from '../edit.module.css';
import { TakeOut } from './AcceptedRows';

/** What a marker goes by. */
export interface Scheme {
  modelAnswer: string;
  scheme: SchemeLine[];
  schemeGroups?: SchemeGroup[] | undefined;
}

interface SchemeEditProps {
  value: Scheme;
  /** The points that are given by hand. */
  worth: number;
  change: (value: Scheme, said: string, field?: string) => void;
}

/** Lines are at most as many as there are letters to mark by. */
const mostLines = 26;
const mostGroups = 12;

/** A model answer, the lines to look for, and the groups they are in. */
export function SchemeEdit({ value, worth, change }: SchemeEditProps) {
  const groups = value.schemeGroups ?? [];
  const keep = (scheme: SchemeLine[], schemeGroups: SchemeGroup[], said: string, field?: string) => {
    // Those by themselves first, then group by group: letters follow what is seen.
    const at = ({ groupId }: SchemeLine) => schemeGroups.findIndex(({ id }) => id === groupId);
    const ordered = [...scheme].sort((a, b) => at(a) - at(b));
    const { schemeGroups: _before, ...rest } = value;
    change({ ...rest, scheme: ordered, ...(schemeGroups.length > 0 && { schemeGroups }) }, said, field);
  };
  const linesOf = (groupId: string | undefined) =>
    value.scheme.filter((line) =>
      groupId === undefined ? !groups.some(({ id }) => id === line.groupId) : line.groupId === groupId,
    );
  const addLine = (group?: SchemeGroup) => {
    const last = linesOf(group?.id).at(-1);
    const worthOf = group?.as === 'levels' && last ? last.points + 1 : 1;
    const line = { id: nanoid(12), text: '', points: worthOf, ...(group && { groupId: group.id }) };
    keep([...value.scheme, line], groups, group?.as === 'levels' ? 'Level added' : 'Scheme line added');
  };
  const rows = (groupId: string | undefined) =>
    linesOf(groupId).map((line) => {
      const letter = optionLetter(value.scheme.indexOf(line));
      return (
        <SchemeRow
          key={line.id}
          line={line}
          letter={letter}
          groups={groups}
          change={(next, said, field) =>
            keep(
              value.scheme.map((each) => (each.id === next.id ? next : each)),
              groups,
              said,
              field,
            )
          }
          remove={() =>
            keep(
              value.scheme.filter((each) => each.id !== line.id),
              groups,
              `Line ${letter} removed`,
            )
          }
        />
      );
    });
  const full = value.scheme.length >= mostLines;
  return (
    <div className={styles.rows}>
      <GrowingTextarea
        id="field-modelAnswer"
        label="Model answer"
        minRows={2}
        size="sm"
        value={value.modelAnswer}
        onChange={(event) =>
          change({ ...value, modelAnswer: event.currentTarget.value }, 'Model answer edited', 'model')
        }
      />
      <div className={styles.rows} id="field-scheme">
        <span className={styles.label}>
          Mark scheme: what to look for. It can give {points(schemeReach({ lines: value.scheme, groups }))} of{' '}
          {points(worth)}.
        </span>
        {rows(undefined)}
        {!full && (
          <Button size="compact-sm" className={styles.add} onClick={() => addLine()}>
            Add a line
          </Button>
        )}
        {groups.map((group, index) => (
          <GroupRows
            key={group.id}
            group={group}
            number={index + 1}
            change={(next, said, field) =>
              keep(
                value.scheme,
                groups.map((each) => (each.id === next.id ? next : each)),
                said,
                field,
              )
            }
            remove={() =>
              keep(
                value.scheme.map(({ groupId, ...line }) =>
                  groupId === group.id || groupId === undefined ? line : { ...line, groupId },
                ),
                groups.filter(({ id }) => id !== group.id),
                `Group ${index + 1} dissolved`,
              )
            }
            add={full ? null : () => addLine(group)}
          >
            {rows(group.id)}
          </GroupRows>
        ))}
        {groups.length < mostGroups && (
          <div className={styles.adders}>
            <Button
              size="compact-sm"
              onClick={() =>
                keep(
                  value.scheme,
                  [...groups, { id: nanoid(12), text: '', as: 'lines' }],
                  'Group of lines added',
                )
              }
            >
              Add a group with a cap
            </Button>
            <Button
              size="compact-sm"
              onClick={() =>
                keep(
                  value.scheme,
                  [...groups, { id: nanoid(12), text: '', as: 'levels' }],
                  'Criterion with levels added',
                )
              }
            >
              Add a criterion with levels
            </Button>
          </div>
        )}
      </div>
    </div>
  );
}

interface GroupRowsProps {
  group: SchemeGroup;
  number: number;
  change: (group: SchemeGroup, said: string, field?: string) => void;
  remove: () => void;
  /** Null once there are as many lines as there are letters. */
  add: (() => void) | null;
  children: React.ReactNode;
}

/** A group of lines with its cap, or a criterion with its levels. */
function GroupRows({ group, number, change, remove, add, children }: GroupRowsProps) {
  const levels = group.as === 'levels';
  const name = levels ? `Criterion ${number}` : `Group ${number}`;
  return (
    <fieldset className={styles.schemeGroup} id={`field-scheme-group-${group.id}`}>
      <legend className="visuallyHidden">{name}</legend>
      <div className={`${styles.row} ${styles.groupHead}`}>
        <TextInput
          aria-label={`Name of ${name.toLowerCase()}`}
          placeholder={levels ? 'What is looked at, e.g. use of sources' : 'What the lines are about'}
          size="sm"
          maxLength={500}
          value={group.text}
          onChange={(event) =>
            change({ ...group, text: event.currentTarget.value }, `${name} renamed`, `group-${group.id}`)
          }
        />
        {levels ? (
          <span className={styles.soft}>pick one level</span>
        ) : (
          <span className={styles.cap}>
            at most
            <PointsField
              size="sm"
              label={`Most points of ${name.toLowerCase()}`}
              value={group.cap ?? null}
              onPoints={(cap) => {
                const { cap: _before, ...rest } = group;
                change(
                  cap === null ? rest : { ...rest, cap },
                  `Cap of ${name.toLowerCase()} changed`,
                  `group-cap-${group.id}`,
                );
              }}
            />
          </span>
        )}
        <TakeOut what={`${name.toLowerCase()}, keeping its lines`} onClick={remove} />
      </div>
      {children}
      {add && (
        <Button size="compact-sm" className={styles.add} onClick={add}>
          {levels ? 'Add a level' : 'Add a line to this group'}
        </Button>
      )}
    </fieldset>
  );
}

interface SchemeRowProps {
  line: SchemeLine;
  letter: string;
  groups: readonly SchemeGroup[];
  change: (line: SchemeLine, said: string, field?: string) => void;
  remove: () => void;
}

function SchemeRow({ line, letter, groups, change, remove }: SchemeRowProps) {
  const group = groups.find(({ id }) => id === line.groupId);
  const name = group?.as === 'levels' ? 'Level' : 'Scheme line';
  return (
    <div className={`${styles.row} ${groups.length > 0 ? styles.groupedLine : styles.line}`}>
      <span aria-hidden className={styles.letter}>
        {letter}
      </span>
      <TextInput
        id={`field-line-${line.id}`}
        aria-label={`${name} ${letter}`}
        size="sm"
        value={line.text}
        onChange={(event) =>
          change({ ...line, text: event.currentTarget.value }, `Line ${letter} edited`, `line-${line.id}`)
        }
      />
      <PointsField
        size="sm"
        label={`Points for line ${letter}`}
        min={-1000}
        value={line.points}
        onPoints={(worth) => {
          if (worth !== null)
            change({ ...line, points: worth }, `Points for line ${letter} changed`, `line-points-${line.id}`);
        }}
      />
      {groups.length > 0 && (
        <NativeSelect
          size="sm"
          aria-label={`Group of line ${letter}`}
          value={group?.id ?? ''}
          data={[
            { value: '', label: 'by itself' },
            ...groups.map(({ id, text }, index) => ({ value: id, label: text || `group ${index + 1}` })),
          ]}
          onChange={(event) => {
            const { groupId: _before, ...rest } = line;
            const to = event.currentTarget.value;
            change(to ? { ...rest, groupId: to } : rest, `Line ${letter} moved to another group`);
          }}
        />
      )}
      <TakeOut what={`line ${letter}`} onClick={remove} />
    </div>
  );
}
