import { NativeSelect } from '@mantine/core';
import { useEffect, useMemo, useState } from 'react';
import type { TableRow } from '@/core/formats/csv/table';
import { guessAnswerColumns, type AnswerColumns } from '@/core/intake/columns';
import type { ColumnChoices } from '@/core/intake/sheetPaper';
import type { Question } from '@/core/kinds';
import type { Paper } from '@/core/model/paper';
import type { Sitting } from '@/core/model/sitting';
import type { Brought } from '@/store/bringAnswers';
import { HeadingChoice } from '@/desk/SheetSource';
import { newId } from '@/store/ids';
import { asKept, questionsFor, type SheetChoices, type SheetInto } from '@/store/sheetAnswers';
import { act } from '@/desk/act';
import { TwoColumns } from '@/ui/TwoColumns';
import { ColumnTable } from './ColumnTable';
import { IntakeMargin } from './IntakeMargin';
import { SheetFindings } from './SheetFindings';
import { useSheet } from './useSheet';
import styles from './intake.module.css';

interface UnderstoodProps {
  rows: TableRow[];
  /** Of the file; '' where it was pasted. */
  name: string;
  papers: readonly Paper[];
  /** What it goes into, where that is fixed. */
  sitting: Sitting | null;
  paperId: string | null;
  done: (brought: Brought) => void;
}

/** What was understood of a sheet, to be changed before anything is kept. */
export function Understood({ rows, name, papers, sitting, paperId, done }: UnderstoodProps) {
  const [into, setInto] = useState<SheetInto>(() => firstInto(name, papers, sitting, paperId));
  // The same column makes the same question, however often it is looked at.
  const [ids] = useState(() => new Map<number, string>());
  const idFor = (column: number) => {
    const id = ids.get(column) ?? newId();
    ids.set(column, id);
    return id;
  };
  const [questions, setQuestions] = useState<Question[] | null | undefined>(undefined);
  const [columns, setColumns] = useState<AnswerColumns | null>(null);
  const [rest, setRest] = useState<Omit<SheetChoices, 'into' | 'columns'>>({
    keyRow: null,
    made: {},
    dayOrder: 'dayFirst',
    several: 'attempts',
  });
  const target = into.is === 'newPaper' ? '' : into.is === 'paper' ? into.paperId : into.sittingId;
  const guess = async (heading?: number | null) => {
    const theirs = await questionsFor(into);
    const guessed = guessAnswerColumns(rows, theirs, idFor, heading);
    setQuestions(theirs);
    setColumns(into.is === 'sitting' ? await asKept(into.sittingId, guessed) : guessed);
  };
  useEffect(() => {
    void act(guess(columns?.heading));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- guessed again only where the answers go elsewhere
  }, [rows, into.is, target]);
  const choices = useMemo(
    () => (columns && questions !== undefined ? { ...rest, into, columns } : null),
    [rest, into, columns, questions],
  );
  const { intake, look, busy } = useSheet(rows, choices);
  if (!columns || !choices || questions === undefined) return null;
  const setMade = (which: readonly number[], part: ColumnChoices) =>
    setRest({
      ...rest,
      made: {
        ...rest.made,
        ...Object.fromEntries(which.map((column) => [column, { ...rest.made[column], ...part }])),
      },
    });
  return (
    <TwoColumns
      marginLabel="What the import does"
      margin={
        <IntakeMargin
          papers={papers}
          choices={choices}
          look={look}
          busy={busy}
          intake={intake}
          setInto={setInto}
          choose={(part) => setRest({ ...rest, ...part })}
          done={done}
        />
      }
    >
      <div className={styles.rowsSaid}>
        <HeadingChoice rows={rows} heading={columns.heading} choose={(heading) => void act(guess(heading))} />
        {into.is === 'newPaper' && (
          <NativeSelect
            label="Right answers are in"
            value={rest.keyRow === null ? '' : String(rest.keyRow)}
            data={[
              { value: '', label: 'no row: none yet, or typed later' },
              ...rows.flatMap(({ line, cells }, index) =>
                index === columns.heading || index > 400
                  ? []
                  : [
                      {
                        value: String(index),
                        label: `row ${line}: ${cells.filter(Boolean).join(', ').slice(0, 60)}`,
                      },
                    ],
              ),
            ]}
            onChange={(event) => {
              const { value } = event.currentTarget;
              setRest({ ...rest, keyRow: value === '' ? null : Number(value) });
            }}
          />
        )}
      </div>
      <ColumnTable
        rows={rows}
        keyRow={rest.keyRow === null ? undefined : rows[rest.keyRow]}
        columns={columns}
        questions={questions}
        made={look?.questions ?? []}
        idFor={idFor}
        choices={rest.made}
        setRole={(column, role) =>
          setColumns({ ...columns, roles: columns.roles.map((each, at) => (at === column ? role : each)) })
        }
        setMade={setMade}
      />
      {look && <SheetFindings look={look} columns={columns} isNew={into.is === 'newPaper'} />}
    </TwoColumns>
  );
}

/** Where the answers go to begin with. */
function firstInto(
  name: string,
  papers: readonly Paper[],
  sitting: Sitting | null,
  paperId: string | null,
): SheetInto {
  if (sitting) return { is: 'sitting', sittingId: sitting.id };
  const paper = papers.find(({ id }) => id === paperId);
  if (paper) return { is: 'paper', paperId: paper.id, title: paper.title };
  return { is: 'newPaper', title: name.replace(/\.\w+$/, '') };
}
