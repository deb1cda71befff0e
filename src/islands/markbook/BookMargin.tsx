import { Button, NumberInput, Radio, Select } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import type { MarkBookColumn } from '@/core/model/markBook';
import { registerName } from '@/core/model/names';
import { act } from '@/desk/act';
import { newId } from '@/store/ids';
import { deleteMarkBook, sittingColumn, typedColumn } from '@/store/markBooks';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { NameForm } from '@/ui/NameForm';
import { MarginBlock } from '@/ui/TwoColumns';
import { done } from '@/words/done';
import { standingWords } from '@/words/markBook';
import { percent } from '@/words/format';
import type { ShownAs } from './BookGrid';
import { BringInColumn } from './BringInColumn';
import { ColumnFields } from './ColumnFields';
import type { Picked } from './MarkBookPage';
import { SaveBook } from './SaveBook';
import type { BookAtHand, BookRow } from './useMarkBook';
import styles from './markbook.module.css';

interface BookMarginProps {
  at: BookAtHand;
  rows: readonly BookRow[];
  picked: Picked;
  shown: ShownAs;
  names: boolean;
}

/** What belongs to what is picked, and what holds for the whole book. */
export function BookMargin({ at, rows, picked, shown, names }: BookMarginProps) {
  const column = at.book.columns.find(({ id }) => id === picked.columnId);
  const row = rows.find(({ student }) => student.id === picked.studentId);
  return (
    <>
      {row && (
        <TotalOf
          at={at}
          row={row}
          column={column}
          name={names ? registerName(row.student) : row.student.number || 'One student'}
        />
      )}
      {column && <ColumnFields key={column.id} at={at} column={column} />}
      {column?.kind === 'typed' && <BringInColumn key={`in ${column.id}`} at={at} column={column} />}
      <NewColumn at={at} />
      <Categories at={at} />
      <Rules at={at} />
      <SaveBook at={at} rows={rows} shown={shown} names={names} />
      <MarginBlock title="Mark books">
        <p>
          <a href="/mark-books">All mark books</a>
        </p>
        <Button
          size="compact-sm"
          onClick={() =>
            void act(deleteMarkBook(at.book, isoNow())).then(
              (gone) => gone && window.location.assign('/mark-books'),
            )
          }
        >
          Delete this mark book
        </Button>
      </MarginBlock>
    </>
  );
}

interface TotalOfProps {
  at: BookAtHand;
  row: BookRow;
  column: MarkBookColumn | undefined;
  /** What the student is called here. */
  name: string;
}

/** How the total of one student comes about, step by step; and excusing from the column that is picked. */
function TotalOf({ at, row, column, name }: TotalOfProps) {
  const { student, steps } = row;
  const excused = column?.excused.includes(student.id) === true;
  const nameOf = (id: string) => {
    const found = at.book.columns.find((each) => each.id === id);
    return found ? at.titleOf(found) : '';
  };
  return (
    <MarginBlock title={name}>
      <ul className={styles.steps}>
        {steps.units.map(({ categoryId, weight, columns, share }, index) => {
          const category = at.book.categories.find(({ id }) => id === categoryId);
          return (
            <li key={index}>
              {category && (
                <strong>
                  {category.name}: {share === null ? 'nothing yet' : percent(share)} × {weight}
                </strong>
              )}
              <ul>
                {columns.map((step) => (
                  <li key={step.columnId}>
                    {nameOf(step.columnId)}: {step.share === null ? '–' : percent(step.share)} × {step.weight}
                    {step.standing !== 'counts' && `, ${standingWords[step.standing]}`}
                  </li>
                ))}
              </ul>
            </li>
          );
        })}
      </ul>
      <p>
        <strong>
          {steps.percent === null
            ? 'No total yet.'
            : `Total ${steps.percent.toFixed(at.book.decimals)}%${steps.grade ? `, ${steps.grade}` : ''}`}
        </strong>
      </p>
      <p>
        <a href={`/students/${student.id}`}>All results of {name}</a>
      </p>
      {column && (
        <Button
          size="compact-sm"
          onClick={() =>
            at.setColumn(
              {
                ...column,
                excused: excused
                  ? column.excused.filter((id) => id !== student.id)
                  : [...column.excused, student.id],
              },
              done.markBookChanged,
            )
          }
        >
          {excused ? `No longer excuse from ${at.titleOf(column)}` : `Excuse from ${at.titleOf(column)}`}
        </Button>
      )}
    </MarginBlock>
  );
}

/** Adds a sitting that is not there yet, or a column to type in. */
function NewColumn({ at }: { at: BookAtHand }) {
  const { book } = at;
  const there = new Set(
    book.columns.flatMap((column) => (column.kind === 'sitting' ? [column.sittingId] : [])),
  );
  const sittings =
    useLiveQuery(
      () => desk.sittings.filter(({ rehearsal, share }) => rehearsal !== true && share !== true).toArray(),
      [],
    ) ?? [];
  const others = sittings.filter(({ id }) => !there.has(id));
  const add = (column: MarkBookColumn) =>
    at.change({ columns: [...book.columns, column] }, done.markBookChanged);
  return (
    <MarginBlock title="Add a column">
      <div className={styles.fields}>
        {others.length > 0 && (
          <Select
            aria-label="Add a sitting"
            placeholder="A sitting"
            size="sm"
            value={null}
            data={others.map((sitting) => ({ value: sitting.id, label: sitting.title }))}
            onChange={(id) => id && add(sittingColumn(id))}
          />
        )}
        <NameForm
          label="Name of a column to type in"
          placeholder="Oral exam"
          button="Add column"
          done={(title) => add(typedColumn(title))}
        />
      </div>
    </MarginBlock>
  );
}

function Categories({ at }: { at: BookAtHand }) {
  const { categories, columns } = at.book;
  const put = (index: number, part: object, joins: string) =>
    at.change(
      { categories: categories.map((each, place) => (place === index ? { ...each, ...part } : each)) },
      done.markBookChanged,
      joins,
    );
  return (
    <MarginBlock title="Categories">
      <div className={styles.fields}>
        {categories.map((category, index) => (
          <fieldset key={category.id} className={styles.category}>
            <legend>{category.name}</legend>
            <NumberInput
              label="Weight"
              size="xs"
              w="5.5rem"
              min={0}
              max={1000}
              value={category.weight}
              onChange={(value) =>
                put(index, { weight: Math.max(0, Number(value) || 0) }, `weight ${category.id}`)
              }
            />
            <NumberInput
              label="Only the best"
              size="xs"
              w="6.5rem"
              min={1}
              max={100}
              allowDecimal={false}
              placeholder="all"
              value={category.best ?? ''}
              onChange={(value) =>
                put(index, { best: Number(value) >= 1 ? Number(value) : null }, `best ${category.id}`)
              }
            />
            <Button
              size="compact-xs"
              aria-label={`Delete category ${category.name}`}
              onClick={() =>
                at.change(
                  {
                    categories: categories.filter(({ id }) => id !== category.id),
                    columns: columns.map((column) =>
                      column.categoryId === category.id ? { ...column, categoryId: null } : column,
                    ),
                  },
                  done.markBookChanged,
                )
              }
            >
              Delete
            </Button>
          </fieldset>
        ))}
        <NameForm
          label="Name of a category"
          placeholder="Quizzes"
          button="Add category"
          done={(name) =>
            at.change(
              { categories: [...categories, { id: newId(), name, weight: 1, best: null }] },
              done.markBookChanged,
            )
          }
        />
      </div>
    </MarginBlock>
  );
}

function Rules({ at }: { at: BookAtHand }) {
  const { missing, decimals } = at.book;
  return (
    <MarginBlock title="Totals">
      <div className={styles.fields}>
        <Radio.Group
          label="What wasn’t sat"
          value={missing}
          onChange={(value) => at.change({ missing: value as typeof missing }, done.markBookChanged)}
        >
          <div className={styles.row}>
            <Radio size="sm" value="nothing" label="counts as nothing" />
            <Radio size="sm" value="leftOut" label="is left out" />
          </div>
        </Radio.Group>
        <NumberInput
          label="Decimals of a percent"
          size="sm"
          maw="10rem"
          min={0}
          max={2}
          allowDecimal={false}
          value={decimals}
          onChange={(value) =>
            at.change(
              { decimals: Math.min(2, Math.max(0, Math.round(Number(value) || 0))) },
              done.markBookChanged,
            )
          }
        />
      </div>
    </MarginBlock>
  );
}
