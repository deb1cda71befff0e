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
import { counted } from '@/words/format';
import { fileNameOf } from '@/core/formats/fileName';
import { fieldWords } from '@/words/losses';
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
  if (paper === null) return <EmptyState title="Paper not found" action={<a href="/">Go to the desk</a>} />;
  if (!paper) return null;
  return (
    <TwoColumns
      marginLabel="Import and export"
      margin={
        <>
          <TakeOutSheet paper={paper} />
          <TakeOutPackage paper={paper} />
          <MarginBlock title="Answers">
            <p>
              Have students answered it elsewhere?{' '}
              <a href={`/answers?paper=${paper.id}`}>Import answers from a sheet</a>
            </p>
          </MarginBlock>
        </>
      }
    >
      <h1 className={styles.title}>Import questions into {paper.title || 'paper without a title'}</h1>
      <div className={styles.bring}>
        <p>
          One row per question: its text, its options if it has any, and its key as a letter, a number or in
          words. Paste rows, or choose a CSV, XLSX or ODS file. You can check everything before you import.
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
    const said = `${counted(good.length, 'question')} imported`;
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
            <Table.Th>Row</Table.Th>
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
            ? `Import ${counted(good.length, 'valid row')}`
            : `Import ${counted(good.length, 'question')}`}
        </Button>
      </div>
    </>
  );
}

function badWords({ reason, cell }: BadQuestionRow): string {
  const words: Record<BadQuestionRow['reason'], string> = {
    noStem: 'it has no question text',
    keyMatchesNothing: `the key “${cell}” doesn’t match any option`,
    badPoints: `“${cell}” isn’t a valid number of points`,
    badNumber: `“${cell}” can’t be read as a number`,
    badScheme: `the scheme line “${cell}” doesn’t end with its points, for example “a named light (1)”`,
    unknownKind: cell ? `“${cell}” isn’t a kind of question` : 'its kind can’t be told from its cells',
    noPartner: `“${cell}” doesn’t say what it belongs to, for example “spring tide → new moon”`,
    noGaps: `“${cell}” has no gap, for example “The [flood] comes in”`,
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
  const said = `${counted(rows.length - 1, 'question')} exported`;
  const saveWorkbook = async () => {
    const bytes = await act(workbookOf(rows, paper.title).result);
    if (!bytes) return;
    saveFile(`${name}.xlsx`, 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', bytes);
    say(said);
  };
  return (
    <MarginBlock title="Export to a spreadsheet">
      <p>{counted(rows.length - 1, 'question')} fit in one row each and can be imported again.</p>
      {left.length > 0 && (
        <>
          <p>Left out, because they don’t fit in a row:</p>
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
        Notes, hints, links, comments on single options and comments for partly right answers aren’t exported.
      </p>
      <Button
        disabled={rows.length === 1}
        onClick={() => {
          saveFile(`${name}.csv`, 'text/csv;charset=utf-8', csvFrom(rows));
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
