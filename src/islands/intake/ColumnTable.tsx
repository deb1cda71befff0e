import { Button, Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { TableRow } from '@/core/formats/csv/table';
import { bodyOf } from '@/core/formats/csv/heading';
import { kindsFromAnswers } from '@/core/formats/sheet/kinds';
import { ColumnRole, type AnswerColumns } from '@/core/intake/columns';
import type { ColumnChoices } from '@/core/intake/sheetPaper';
import { kindNamed, kindOf, type KindName, type Question } from '@/core/kinds';
import { plainText } from '@/core/basics/richWords';
import { roleWords } from '@/words/intake';
import { counted } from '@/words/format';
import styles from './intake.module.css';

interface ColumnTableProps {
  rows: readonly TableRow[];
  /** The one with the right answers. */
  keyRow: TableRow | undefined;
  columns: AnswerColumns;
  /** Of the paper that the answers go into; null: it is made. */
  questions: readonly Question[] | null;
  /** The questions as they are read now. */
  made: readonly Question[];
  /** The id of the question that a column makes. */
  idFor: (column: number) => string;
  /** What was said of the questions that are made. */
  choices: Readonly<Record<number, ColumnChoices>>;
  setRole: (column: number, role: ColumnRole) => void;
  setMade: (columns: readonly number[], part: ColumnChoices) => void;
}

/** Every column with its first values and what it holds. */
export function ColumnTable({
  rows,
  keyRow,
  columns,
  questions,
  made,
  idFor,
  choices,
  setRole,
  setMade,
}: ColumnTableProps) {
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const body = bodyOf(rows, columns.heading).filter((row) => row !== keyRow);
  const isNew = questions === null;
  const asks = columns.roles.flatMap((role, column) => (role.is === 'answers' ? [column] : []));
  const chosen = asks.filter((column) => picked.has(column));
  const pick = (column: number, is: boolean) => {
    const next = new Set(picked);
    if (is) next.add(column);
    else next.delete(column);
    setPicked(next);
  };
  return (
    <section aria-label="Columns" className={styles.columnsPart}>
      {isNew && (
        <SeveralColumns
          chosen={chosen}
          all={asks}
          pickAll={(is) => setPicked(new Set(is ? asks : []))}
          setMade={setMade}
        />
      )}
      <div className={styles.scroller} tabIndex={0} role="region" aria-label="Columns of the sheet">
        <table className={styles.table}>
          <thead>
            <tr>
              {isNew && <th aria-label="Chosen" />}
              <th>Column</th>
              <th>First values</th>
              <th>Holds</th>
              {isNew && <th>Kind</th>}
              {isNew && <th className={styles.figure}>Points</th>}
              {isNew && <th>Key</th>}
            </tr>
          </thead>
          <tbody>
            {columns.roles.map((role, column) => {
              const question = made.find(({ id }) => id === idFor(column));
              const name = columns.names[column] ?? '';
              const values = body
                .map(({ cells }) => cells[column] ?? '')
                .filter(Boolean)
                .slice(0, 3);
              return (
                <tr key={column}>
                  {isNew && (
                    <td>
                      {role.is === 'answers' && (
                        <Checkbox
                          size="xs"
                          aria-label={`Choose ${name}`}
                          checked={picked.has(column)}
                          onChange={(event) => pick(column, event.currentTarget.checked)}
                        />
                      )}
                    </td>
                  )}
                  <th scope="row" title={name}>
                    {name}
                  </th>
                  <td className={styles.values} title={values.join(' · ')}>
                    {values.join(' · ')}
                  </td>
                  <td>
                    <RoleSelect
                      name={name}
                      role={role}
                      column={column}
                      columns={columns}
                      idFor={idFor}
                      questions={questions}
                      choose={(next) => setRole(column, next)}
                    />
                  </td>
                  {isNew && (
                    <MadeCells
                      name={name}
                      question={question}
                      typedKey={choices[column]?.key ?? ''}
                      change={(part) => setMade([column], part)}
                    />
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}

interface MadeCellsProps {
  name: string;
  question: Question | undefined;
  /** As it was typed here. */
  typedKey: string;
  change: (part: ColumnChoices) => void;
}

function MadeCells({ name, question, typedKey, change }: MadeCellsProps) {
  if (!question)
    return (
      <>
        <td />
        <td />
        <td />
      </>
    );
  return (
    <>
      <td>
        <KindSelect label={`Kind of ${name}`} kind={question.kind} choose={(kind) => change({ kind })} />
      </td>
      <td>
        <NumberInput
          size="xs"
          className={styles.points}
          aria-label={`Points of ${name}`}
          min={0}
          max={1000}
          hideControls
          value={question.points}
          onChange={(value) => typeof value === 'number' && change({ points: value })}
        />
      </td>
      <td>
        <TextInput
          size="xs"
          className={styles.key}
          aria-label={`Key of ${name}`}
          placeholder={
            kindOf(question).keyText(question) ||
            (kindOf(question).scoredBy === 'hand' ? 'marked by hand' : 'no key yet')
          }
          value={typedKey}
          onChange={(event) => change({ key: event.currentTarget.value })}
        />
      </td>
    </>
  );
}

function KindSelect({
  label,
  kind,
  choose,
}: {
  label: string;
  kind: KindName | '';
  choose: (kind: KindName) => void;
}) {
  return (
    <NativeSelect
      size="xs"
      className={styles.kind}
      aria-label={label}
      value={kind}
      data={[
        ...(kind === '' ? [{ value: '', label: 'as it is' }] : []),
        ...kindsFromAnswers.map((each) => ({
          value: each,
          label: `${kindNamed(each).label}${kindNamed(each).scoredBy === 'hand' ? ' (marked by hand)' : ''}`,
        })),
      ]}
      onChange={(event) => {
        const chosen = kindsFromAnswers.find((each) => each === event.currentTarget.value);
        if (chosen) choose(chosen);
      }}
    />
  );
}

interface SeveralColumnsProps {
  chosen: readonly number[];
  all: readonly number[];
  pickAll: (is: boolean) => void;
  setMade: (columns: readonly number[], part: ColumnChoices) => void;
}

/** Kind, points and tags for many questions at once. */
function SeveralColumns({ chosen, all, pickAll, setMade }: SeveralColumnsProps) {
  const [kind, setKind] = useState<KindName | ''>('');
  const [points, setPoints] = useState<number | null>(null);
  const [tags, setTags] = useState('');
  const set = () =>
    setMade(chosen, {
      ...(kind !== '' && { kind }),
      ...(points !== null && { points }),
      ...(tags.trim() && {
        tags: tags
          .split(',')
          .map((tag) => tag.trim())
          .filter(Boolean),
      }),
    });
  return (
    <div className={styles.several} role="group" aria-label="Several questions at once">
      <Checkbox
        size="xs"
        label="All questions"
        checked={all.length > 0 && chosen.length === all.length}
        indeterminate={chosen.length > 0 && chosen.length < all.length}
        onChange={(event) => pickAll(event.currentTarget.checked)}
      />
      <KindSelect label="Kind for those chosen" kind={kind} choose={setKind} />
      <NumberInput
        size="xs"
        className={styles.points}
        aria-label="Points for those chosen"
        placeholder="points"
        min={0}
        max={1000}
        hideControls
        value={points ?? ''}
        onChange={(value) => setPoints(typeof value === 'number' ? value : null)}
      />
      <TextInput
        size="xs"
        aria-label="Tags for those chosen"
        placeholder="tags, with commas"
        value={tags}
        onChange={(event) => setTags(event.currentTarget.value)}
      />
      <Button
        size="xs"
        disabled={chosen.length === 0 || (kind === '' && points === null && !tags.trim())}
        onClick={set}
      >
        Set for {counted(chosen.length, 'question')}
      </Button>
    </div>
  );
}

interface RoleSelectProps {
  name: string;
  role: ColumnRole;
  column: number;
  columns: AnswerColumns;
  idFor: (column: number) => string;
  questions: readonly Question[] | null;
  choose: (role: ColumnRole) => void;
}

function RoleSelect({ name, role, column, columns, idFor, questions, choose }: RoleSelectProps) {
  const asked = questions
    ? questions.map((question, index) => ({
        id: question.id,
        label: `${index + 1}. ${plainText(question.stem).slice(0, 50)}`,
      }))
    : columns.roles.flatMap((each, at) =>
        each.is === 'answers' ? [{ id: each.questionId, label: columns.names[at] ?? '' }] : [],
      );
  const people = Object.entries(roleWords).map(([is, label]) => ({ value: JSON.stringify({ is }), label }));
  const about = (is: 'answers' | 'points') => (of: { id: string; label: string }) => ({
    value: JSON.stringify({ is, questionId: of.id }),
    label: is === 'points' ? `points for ${of.label.slice(0, 40)}` : of.label,
  });
  const own = JSON.stringify({ is: 'answers', questionId: idFor(column) });
  const data = [
    ...(questions
      ? [{ group: 'Answers to', items: asked.map(about('answers')) }]
      : [{ group: 'Question', items: [{ value: own, label: 'answers to a question' }] }]),
    { group: 'Who and when', items: people },
    {
      group: 'Points given already',
      items: asked.filter(({ id }) => questions || id !== idFor(column)).map(about('points')),
    },
  ];
  return (
    <NativeSelect
      size="xs"
      className={styles.role}
      aria-label={`What ${name} holds`}
      value={JSON.stringify(role)}
      data={data}
      onChange={(event) => choose(ColumnRole.parse(JSON.parse(event.currentTarget.value)))}
    />
  );
}
