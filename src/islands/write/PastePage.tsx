import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import { sumBy } from 'remeda';
import { plainText } from '@/core/basics/richWords';
import { quizPaper, withQuiz, type QuizPaper } from '@/core/intake/quizText/quizPaper';
import { textOfHtml } from '@/core/intake/quizText/htmlText';
import type { LineRole } from '@/core/intake/quizText/readQuiz';
import { linesFrom } from '@/core/intake/quizText/signs';
import { kindOf } from '@/core/kinds';
import { mostQuestions } from '@/core/model/paper';
import { act } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { changePaper } from '@/store/papers';
import { newId } from '@/store/ids';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { EmptyState } from '@/ui/EmptyState';
import { FileButton } from '@/ui/FileButton';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { done } from '@/words/done';
import { counted, points } from '@/words/format';
import sticky from '@/ui/stickyEnd.module.css';
import styles from './paste.module.css';

/** A quiz pasted as text or read from a document: understood as it is typed, mended in the text, taken in one step. */
export function PastePage({ paperId }: { paperId: string }) {
  return (
    <DeskReady>
      <Paste paperId={paperId} />
    </DeskReady>
  );
}

const example = `1. Which light shows on the port side? (2 points)
a) green
*b) red
c) white

2. True or false: The ebb runs out.
Answer: True

3. The stream that comes in is the ____.
Answer: flood

4. Explain set and drift.`;

function Paste({ paperId }: { paperId: string }) {
  const paper = useLiveQuery(async () => (await desk.papers.get(paperId)) ?? null, [paperId]);
  const [text, setText] = useState('');
  const [fault, setFault] = useState('');
  const field = useRef<HTMLTextAreaElement>(null);
  const shown = useDeferredValue(text);
  const lines = useMemo(() => linesFrom(shown), [shown]);
  const read = useMemo(() => quizPaper(lines, newId), [lines]);
  if (paper === null) return <EmptyState title="Paper not found" action={<a href="/">Go to the desk</a>} />;
  if (!paper) return null;
  const goTo = (line: number) => {
    const all = text.split('\n');
    const from = sumBy(all.slice(0, line), (each) => each.length + 1);
    field.current?.focus();
    field.current?.setSelectionRange(from, from + (all[line]?.length ?? 0));
    field.current?.scrollIntoView({ block: 'nearest' });
  };
  const open = async (file: File) => {
    setFault('');
    const found = await textOfFile(file);
    if (found === null)
      setFault(`${file.name}: it can’t be read as a document. Save it as DOCX, or copy its text.`);
    else setText(found);
  };
  const { questions } = read.paper;
  const tooMany = paper.questions.length + questions.length > mostQuestions;
  const take = async () => {
    const next = withQuiz(paper, read.paper);
    if (await act(changePaper(next, done.questionsImported(questions.length), undefined, isoNow())))
      window.location.assign(`/papers/${paper.id}`);
  };
  return (
    <TwoColumns
      marginLabel="What was understood"
      margin={<Understood read={read} lines={lines.map((line) => line.text)} goTo={goTo} />}
    >
      <h1 className={styles.heading}>Paste a quiz into {paper.title || 'paper without a title'}</h1>
      <p className={styles.soft} id="paste-how">
        Numbered questions, options with letters, the right one with a star, bold, or under “Answer:”; a key
        at the end, points in brackets, true or false, blanks as ____. What isn’t understood is marked: mend
        it here.
      </p>
      <div className={styles.row}>
        <FileButton
          accept=".docx,.txt,.md"
          onChange={(file) => file && void open(file)}
          inputProps={{ 'aria-label': 'Document with a quiz' }}
        >
          {(button) => <Button {...button}>Choose a document (DOCX)</Button>}
        </FileButton>
        <a href={`/papers/${paper.id}`}>Back to writing</a>
        {fault && <p role="alert">{fault}</p>}
      </div>
      <div className={styles.paper}>
        <div className={styles.marks} aria-hidden>
          {text.split('\n').map((line, at) => (
            <div key={at} className={shown === text ? (markOf[read.roles[at] ?? 'blank'] ?? '') : ''}>
              {line || '\u200b'}
            </div>
          ))}
        </div>
        <textarea
          ref={field}
          autoFocus
          aria-label="The quiz as text"
          aria-describedby="paste-how"
          className={styles.text}
          placeholder={example}
          rows={Math.max(16, text.split('\n').length + 1)}
          spellCheck={false}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
      </div>
      {tooMany && (
        <p role="alert">
          A paper holds {mostQuestions} questions at most; this one has {paper.questions.length} already.
        </p>
      )}
      <div className={sticky.end}>
        <Button variant="filled" disabled={questions.length === 0 || tooMany} onClick={() => void take()}>
          Import {counted(questions.length, 'question')}
        </Button>
      </div>
    </TwoColumns>
  );
}

/** What of a line is marked in the text. */
const markOf: Partial<Record<LineRole, string | undefined>> = {
  stem: styles.stem,
  part: styles.part,
  unclear: styles.unclear,
};

interface UnderstoodProps {
  read: QuizPaper;
  lines: readonly string[];
  goTo: (line: number) => void;
}

/** The questions as they are understood, and the lines that are not. */
function Understood({ read: { paper, roles, read }, lines, goTo }: UnderstoodProps) {
  const unclear = roles.flatMap((role, at) => (role === 'unclear' ? [at] : []));
  return (
    <>
      <MarginBlock title={`${counted(paper.questions.length, 'question')} understood`}>
        <ol className={styles.list}>
          {paper.questions.map((question, at) => {
            const kind = kindOf(question);
            const key = kind.keyText(question);
            const { line = 0, badKey = false } = read[at] ?? {};
            return (
              <li key={at}>
                <button type="button" className={styles.link} onClick={() => goTo(line)}>
                  {firstWords(plainText(question.stem) || ('text' in question ? String(question.text) : ''))}
                </button>
                <span className={styles.soft}>
                  {kind.label}, {points(question.points)} p{key ? `: ${firstWords(key)}` : ', no key yet'}
                </span>
                {badKey && <span className={styles.fault}>Its answer is none of its options</span>}
              </li>
            );
          })}
        </ol>
      </MarginBlock>
      {unclear.length > 0 && (
        <MarginBlock title={`${counted(unclear.length, 'line')} not understood, left out`}>
          <ul className={styles.list}>
            {unclear.map((at) => (
              <li key={at}>
                <button type="button" className={styles.link} onClick={() => goTo(at)}>
                  Line {at + 1}: {firstWords(lines[at] ?? '')}
                </button>
              </li>
            ))}
          </ul>
        </MarginBlock>
      )}
      <p role="status" className="visuallyHidden">
        {counted(paper.questions.length, 'question')} understood
        {unclear.length > 0 && `, ${counted(unclear.length, 'line')} not understood`}
      </p>
    </>
  );
}

const firstWords = (text: string) => (text.length > 70 ? `${text.slice(0, 68)}…` : text);

/** The text of a document; null where it is none. What reads it is large, and comes when it is needed. */
async function textOfFile(file: File): Promise<string | null> {
  if (!/\.docx$/i.test(file.name)) return file.text();
  try {
    const { default: mammoth } = await import('mammoth');
    const { value } = await mammoth.convertToHtml(
      { arrayBuffer: await file.arrayBuffer() },
      { styleMap: ['u => u'], convertImage: mammoth.images.imgElement(() => Promise.resolve({ src: '' })) },
    );
    return textOfHtml(new DOMParser().parseFromString(value, 'text/html').body);
  } catch {
    return null;
  }
}
