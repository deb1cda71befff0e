import { Button, NativeSelect, Table } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { nanoid } from 'nanoid';
import { useMemo, useState } from 'react';
import { bodyOf } from '@/core/formats/csv/heading';
import { csvFrom, type TableRow } from '@/core/formats/csv/table';
import {
  guessQuestionColumns,
  questionColumns,
  questionColumnsUnder,
  type QuestionColumn,
  type QuestionColumnGuess,
} from '@/core/formats/sheet/questionColumns';
import { questionRows, questionTable, type BadQuestionRow } from '@/core/formats/sheet/questionRows';
import { kindOf } from '@/core/kinds';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { mostQuestions, type Paper } from '@/core/model/paper';
import { withAppended } from '@/core/model/parts';
import { changePaper } from '@/store/papers';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { BadRows } from '@/ui/BadRows';
import { counted } from '@/ui/format';
import { fileNameOf } from '@/core/formats/fileName';
import { fieldWords } from '@/ui/lossWords';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { HeadingChoice, SheetSource } from '@/desk/SheetSource';
import { workbookOf } from '@/workers/readSheet';
import { TakeOutPackage } from './TakeOutPackage';
import sticky from '@/ui/stickyEnd.module.css';
import styles from './sheet.module.css';

const columnWords: Record<QuestionColumn, string> = {
  stem: 'question',
  option: 'an option',
  key: 'key',
  scheme: 'mark scheme',
  points: 'points',
  commentRight: 'comment when right',
  commentWrong: 'comment',
  tags: 'tags',
  kind: 'kind',
  nothing: 'leave out',
};

/** Questions from a sheet into the paper, and the paper's questions as a sheet. */
export function SheetPage({ paperId }: { paperId: string }) {
  return (
    <DeskReady>
      <Sheet paperId={paperId} />
    </DeskReady>
  );
}

function Sheet({ paperId }: { paperId: string }) {
  const paper = useLiveQuery(async () => (await desk.papers.get(paperId)) ?? null, [paperId]);
  if (paper === null)
    return <EmptyState title="No such paper on this desk" action={<a href="/">To the desk</a>} />;
  if (!paper) return null;
  return (
    <TwoColumns
      marginLabel="The paper as a file"
      margin={
        <>
          <TakeOutSheet paper={paper} />
          <TakeOutPackage paper={paper} />
        </>
      }
    >
      <h1 className={styles.title}>Questions from a sheet into: {paper.title || 'paper without a title'}</h1>
      <div className={styles.bring}>
        <p>
          One row a question: what is asked, its options if it has any, and its key as a letter, a number or
          in words. Paste rows, or choose a CSV, XLSX or ODS file. What was understood is shown before
          anything is kept.
        </p>
        <SheetSource
          label="Rows of questions"
          placeholder={'Question, A, B, C, Key, Points\nWhich light is red?, port, starboard, stern, A, 1'}
          beside={<a href={`/papers/${paper.id}`}>Back to writing</a>}
        >
          {(rows, key) => <Understood key={key} rows={rows} paper={paper} />}
        </SheetSource>
      </div>
    </TwoColumns>
  );
}

function Understood({ rows, paper }: { rows: TableRow[]; paper: Paper }) {
  const guess = useMemo(() => guessQuestionColumns(rows), [rows]);
  const [changed, setChanged] = useState<QuestionColumnGuess | null>(null);
  const columns = changed?.meanings.length === guess.meanings.length ? changed : guess;
  const body = useMemo(() => bodyOf(rows, columns.heading), [rows, columns.heading]);
  const read = useMemo(() => questionRows(body, columns.meanings, () => nanoid(12)), [body, columns]);
  const { good, bad } = read;
  const tooMany = paper.questions.length + good.length > mostQuestions;
  const bring = async () => {
    const brought = good.map(({ question }) => question);
    const said = `${counted(good.length, 'question')} brought in from a sheet`;
    const next = { ...paper, questions: withAppended(paper.questions, brought) };
    if (await act(changePaper(next, said, undefined, isoNow())))
      window.location.assign(`/papers/${paper.id}`);
  };
  return (
    <>
      <HeadingChoice
        rows={rows}
        heading={columns.heading}
        choose={(heading) => setChanged(questionColumnsUnder(rows, heading))}
      />
      <div className={styles.columns}>
        {columns.meanings.map((meaning, column) => (
          <NativeSelect
            key={column}
            size="xs"
            label={`Column ${column + 1}`}
            description={body[0]?.cells[column] || '–'}
            value={meaning}
            data={questionColumns.map((each) => ({ value: each, label: columnWords[each] }))}
            onChange={(event) => {
              const chosen = questionColumns.find((each) => each === event.currentTarget.value) ?? 'nothing';
              const meanings = columns.meanings.map((each, index) => (index === column ? chosen : each));
              setChanged({ ...columns, meanings });
            }}
          />
        ))}
      </div>
      <BadRows rows={bad.map((row) => ({ line: row.line, why: badWords(row) }))} />
      <Table verticalSpacing={3}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Line</Table.Th>
            <Table.Th>Question</Table.Th>
            <Table.Th>Kind</Table.Th>
            <Table.Th>Key</Table.Th>
            <Table.Th ta="right">Points</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {good.slice(0, 8).map(({ line, question }) => (
            <Table.Tr key={line}>
              <Table.Td>{line}</Table.Td>
              <Table.Td>{String(question.stem)}</Table.Td>
              <Table.Td>{kindOf(question).label}</Table.Td>
              <Table.Td>{kindOf(question).keyText(question) || 'none yet'}</Table.Td>
              <Table.Td ta="right">{question.points}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {good.length > 8 && <p className={styles.soft}>and {counted(good.length - 8, 'more question')}</p>}
      {tooMany && (
        <p role="alert">
          A paper holds {mostQuestions} questions at most; this one has {paper.questions.length} already.
        </p>
      )}
      <div className={sticky.end}>
        <Button variant="filled" disabled={good.length === 0 || tooMany} onClick={() => void bring()}>
          {bad.length > 0
            ? `Bring in the ${counted(good.length, 'good one')}`
            : `Bring in ${counted(good.length, 'question')}`}
        </Button>
      </div>
    </>
  );
}

function badWords({ reason, cell }: BadQuestionRow): string {
  const words: Record<BadQuestionRow['reason'], string> = {
    noStem: 'nothing is asked',
    keyMatchesNothing: `the key “${cell}” matches no option`,
    badPoints: `“${cell}” is no number of points`,
    badNumber: `“${cell}” cannot be read as a number`,
    badScheme: `the line “${cell}” of the scheme does not end with its points, as in “a named light (1)”`,
    unknownKind: cell ? `“${cell}” is no kind of question` : 'its kind cannot be told from its cells',
    noPartner: `“${cell}” does not say what it belongs to, as in “spring tide → new moon”`,
    noGaps: `“${cell}” has no gap, as in “The [flood] comes in”`,
    tooLong: `“${cell}” is too long`,
    tooMany: `it has too many ${cell}`,
    tooManyOptions: `it has ${cell} options; 50 is the most`,
  };
  return words[reason];
}

/** What of a question a row would lose. */
function lostWords(field: string): string {
  if (field === 'stem') return 'markup, maths or pictures in its text';
  if (field === 'options') return 'markup, maths or pictures in its options';
  return fieldWords[field] ?? field;
}

function TakeOutSheet({ paper }: { paper: Paper }) {
  const { rows, left } = useMemo(() => questionTable(paper.questions), [paper.questions]);
  const numbers = numbersOf(paper.questions);
  const name = `questions-${fileNameOf(paper.title)}`;
  const said = `${counted(rows.length - 1, 'question')} saved as a sheet`;
  const saveWorkbook = async () => {
    const bytes = await act(workbookOf(rows, paper.title).result);
    if (!bytes) return;
    saveFile(`${name}.xlsx`, 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', bytes);
    say(said);
  };
  return (
    <MarginBlock title="This paper as a sheet">
      <p>{counted(rows.length - 1, 'question')} can stand in a row each and be read in again.</p>
      {left.length > 0 && (
        <>
          <p>Left out, because a row cannot hold all of them:</p>
          <ul className={styles.left}>
            {left.map(({ question, fields }) => (
              <li key={question.id}>
                {numbers.get(question.id)}: {fields.map(lostWords).join(', ')}
              </li>
            ))}
          </ul>
        </>
      )}
      <p className={styles.soft}>
        Notes, hints, links, comments on single options and those for partly right answers stay on the desk.
      </p>
      <Button
        disabled={rows.length === 1}
        onClick={() => {
          saveFile(`${name}.csv`, 'text/csv;charset=utf-8', csvFrom(rows, true));
          say(said);
        }}
      >
        Save as CSV
      </Button>
      <Button disabled={rows.length === 1} onClick={() => void saveWorkbook()}>
        Save as XLSX
      </Button>
    </MarginBlock>
  );
}
