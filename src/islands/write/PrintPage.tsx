import { Button, Radio } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { Rich } from '@/ui/Rich';
import { studentQuestions } from '@/core/formats/packet/paper';
import { kindOf, type Question } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { wholeScheme } from '@/core/marking/scheme';
import type { Paper } from '@/core/model/paper';
import { givenOf, paperPoints, sectionsOf, type Section } from '@/core/model/parts';
import { desk } from '@/store/tables';
import { DeskReady } from '@/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { counted, points, pointsRange, pointsWords } from '@/words/format';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { printOf } from '../kinds/prints';
import styles from './print.module.css';

type Sheet = 'paper' | 'room' | 'key';

const sheetWords: Record<Sheet, string> = {
  paper: 'The paper',
  room: 'The paper with room for answers',
  key: 'The key with schemes and comments',
};

/** The paper or its key, as it comes out of a printer. */
export function PrintPage({ paperId }: { paperId: string }) {
  return (
    <DeskReady>
      <Print paperId={paperId} />
    </DeskReady>
  );
}

function Print({ paperId }: { paperId: string }) {
  const paper = useLiveQuery(async () => (await desk.papers.get(paperId)) ?? null, [paperId]);
  const [sheet, setSheet] = useState<Sheet>('room');
  if (paper === null) return <EmptyState title="Paper not found" action={<a href="/">Go to the desk</a>} />;
  if (!paper) return null;
  return (
    <TwoColumns
      marginLabel="What to print"
      margin={
        <MarginBlock title="What to print">
          <Radio.Group
            value={sheet}
            onChange={(value) => setSheet(value as Sheet)}
            aria-label="What to print"
          >
            <div className={styles.choices}>
              {(Object.keys(sheetWords) as Sheet[]).map((each) => (
                <Radio key={each} size="sm" value={each} label={sheetWords[each]} />
              ))}
            </div>
          </Radio.Group>
          <Button variant="filled" onClick={() => window.print()}>
            Print
          </Button>
          <p className={styles.soft}>
            All questions that could be drawn are printed: strike out the ones you don’t want.
          </p>
          <a href={`/papers/${paperId}`}>Back to writing</a>
        </MarginBlock>
      }
    >
      <article className={styles.sheet} aria-label={sheetWords[sheet]}>
        <header className={styles.head}>
          <h1>
            {paper.title}
            {sheet === 'key' && ': key'}
          </h1>
          {sheet === 'key' ? (
            <p>{pointsWords(paperPoints(paper))}</p>
          ) : (
            <p className={styles.name}>
              <span>Name</span>
              <span className={styles.blank} />
              <span>Points</span>
              <span className={styles.blank} /> of {pointsRange(paperPoints(paper))}
            </p>
          )}
          {sheet !== 'key' && <Rich text={paper.instructions} />}
        </header>
        <Sections paper={paper} sheet={sheet} />
      </article>
    </TwoColumns>
  );
}

function Sections({ paper, sheet }: { paper: Paper; sheet: Sheet }) {
  const sections = sectionsOf(paper);
  const numbers = numbersOf(itemsOf(sections.flatMap((section) => section.questions)));
  return sections.map((section) => (
    <section key={section.part?.id ?? ''} className={section.part?.newPage ? styles.newPage : undefined}>
      {section.part && <PartHead section={section} forStudents={sheet !== 'key'} />}
      {itemsOf(section.questions).map((question) => (
        <div key={question.id} className={styles.question}>
          <div>
            <strong>{numbers.get(question.id)}</strong>&ensp;
            <Rich text={question.stem} />{' '}
            <span className={styles.soft}>({counted(question.points, 'point')})</span>
          </div>
          {sheet === 'key' ? (
            <KeyOf question={question} />
          ) : (
            <Asked question={question} room={sheet === 'room'} />
          )}
        </div>
      ))}
    </section>
  ));
}

function PartHead({ section, forStudents }: { section: Section; forStudents: boolean }) {
  const { part, questions } = section;
  const given = givenOf(section);
  return (
    <header className={styles.part}>
      <h2>{part?.title}</h2>
      {forStudents && part && <Rich text={part.instructions} />}
      {!forStudents && given < questions.length && (
        <p className={styles.soft}>
          {given} of {questions.length} drawn for each student
        </p>
      )}
    </header>
  );
}

function Asked({ question, room }: { question: Question; room: boolean }) {
  const Printed = printOf(question);
  const [asked] = studentQuestions([question], 'print');
  return asked ? <Printed question={asked} room={room} /> : null;
}

/** The lines of a scheme, group by group. */
function PrintedScheme({ question }: { question: Question }) {
  const { lines, groups } = wholeScheme(question);
  const inGroup = new Set(groups.map(({ id }) => id));
  const listOf = (some: typeof lines) =>
    some.length > 0 && (
      <ul className={styles.scheme}>
        {some.map((line) => (
          <li key={line.id}>
            {line.text} ({line.points > 0 ? '+' : ''}
            {points(line.points)})
          </li>
        ))}
      </ul>
    );
  return (
    <>
      {listOf(lines.filter(({ groupId }) => !inGroup.has(groupId ?? '')))}
      {groups.map((group) => (
        <div key={group.id}>
          <p className={styles.soft}>
            {group.text}
            {group.as === 'levels'
              ? ': one level'
              : group.cap !== undefined && `: at most ${points(group.cap)}`}
          </p>
          {listOf(lines.filter(({ groupId }) => groupId === group.id))}
        </div>
      ))}
    </>
  );
}

function KeyOf({ question }: { question: Question }) {
  const kind = kindOf(question);
  const comments = [question.commentRight, question.commentPart ?? '', question.commentWrong].filter(Boolean);
  return (
    <>
      <p className={`keepLines ${styles.key}`}>{kind.keyText(question) || 'no key yet'}</p>
      <PrintedScheme question={question} />
      {question.hints?.map((hint, index) => (
        <p key={hint.id} className={`keepLines ${styles.soft}`}>
          Hint {index + 1}: {hint.text}
        </p>
      ))}
      {comments.map((comment) => (
        <p key={comment} className={`keepLines ${styles.soft}`}>
          {comment}
        </p>
      ))}
    </>
  );
}
