import { Button, Checkbox, Radio } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { nanoid } from 'nanoid';
import { useMemo, useState } from 'react';
import { studentQuestions } from '@/core/formats/packet/paper';
import type { Question, Response } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import { numbersOf } from '@/core/kinds/itemNumbers';
import type { Paper } from '@/core/model/paper';
import { drawnQuestions } from '@/core/model/parts';
import type { Answers } from '@/core/model/sitting';
import { keyChanges } from '@/core/repair/keyChanges';
import { commentsByKey } from '@/core/scoring/commentsByKey';
import { scoreAttempt, type Award } from '@/core/scoring/scoreAttempt';
import { changePaper } from '@/store/papers';
import { desk } from '@/store/tables';
import { awardGlyph } from '@/ui/awardGlyph';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { deskFiles } from '@/desk/deskFiles';
import { EmptyState } from '@/ui/EmptyState';
import { FillGlyph } from '@/ui/FillGlyph';
import { FilesFrom, passingFiles } from '@/ui/files';
import { counted, points } from '@/words/format';
import { Rich } from '@/ui/Rich';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { PaperQuestions } from '../kinds/PaperQuestions';
import styles from './look.module.css';

/** The paper as students see it, made from what they would be sent. What is filled in here is not kept. */
export function LookPage({ paperId }: { paperId: string }) {
  return (
    <DeskReady>
      <Look paperId={paperId} />
    </DeskReady>
  );
}

function Look({ paperId }: { paperId: string }) {
  const paper = useLiveQuery(async () => (await desk.papers.get(paperId)) ?? null, [paperId]);
  if (paper === null) return <EmptyState title="Paper not found" action={<a href="/">Go to the desk</a>} />;
  return paper ? <FilledIn paper={paper} /> : null;
}

type Tried = Record<string, Response>;

function FilledIn({ paper }: { paper: Paper }) {
  const [tried, setTried] = useState<Tried>({});
  const [scored, setScored] = useState(false);
  const [comments, setComments] = useState(true);
  const [phone, setPhone] = useState(false);
  const files = useMemo(() => passingFiles(deskFiles), []);
  const items = useMemo(() => itemsOf(drawnQuestions(paper, 'look')), [paper]);
  const questions = useMemo(() => studentQuestions(items, 'look'), [items]);
  const card = useMemo(() => scoreAttempt(items, attemptWith(items, tried), []), [items, tried]);
  const awardOf = new Map(card.awards.map((award) => [award.questionId, award]));
  return (
    <TwoColumns
      marginLabel="About this preview"
      margin={
        <>
          <MarginBlock title="What students see">
            <p>Exactly what students get, without the key, scheme or notes. Nothing you enter is saved.</p>
            <Radio.Group
              aria-label="Width"
              value={phone ? 'phone' : 'desk'}
              onChange={(value) => setPhone(value === 'phone')}
            >
              <div className={styles.choices}>
                <Radio size="sm" value="desk" label="On a desk" />
                <Radio size="sm" value="phone" label="On a phone" />
              </div>
            </Radio.Group>
            <a href={`/papers/${paper.id}`}>Back to writing</a>
          </MarginBlock>
          <MarginBlock
            title="Score"
            aside={scored && <strong>{`${points(card.total)} of ${points(card.max)}`}</strong>}
          >
            <Checkbox
              size="sm"
              label="Score these answers"
              checked={scored}
              onChange={(event) => setScored(event.currentTarget.checked)}
            />
            <Checkbox
              size="sm"
              label="with comments"
              disabled={!scored}
              checked={comments}
              onChange={(event) => setComments(event.currentTarget.checked)}
            />
          </MarginBlock>
          <KeyFromThis paper={paper} tried={tried} />
        </>
      }
    >
      <div className={phone ? styles.phone : undefined}>
        <h1 className={styles.title}>{paper.title}</h1>
        <div className={styles.instructions}>
          <Rich text={paper.instructions} />
        </div>
        <FilesFrom files={files}>
          <PaperQuestions
            questions={questions}
            parts={paper.parts ?? []}
            responseTo={(id) => tried[id] ?? null}
            respond={(id, response) => setTried({ ...tried, [id]: response })}
            below={({ id }) => {
              const award = awardOf.get(id);
              const question = items.find((item) => item.id === id);
              return (
                scored &&
                award &&
                question && <Scored question={question} award={award} tried={tried} withComments={comments} />
              );
            }}
          />
        </FilesFrom>
      </div>
    </TwoColumns>
  );
}

/** What is filled in, as the attempt it would be. */
function attemptWith(items: readonly Question[], tried: Tried) {
  const at = isoNow();
  const answers: Answers = Object.fromEntries(
    Object.entries(tried).map(([id, response]) => [id, { response, at }]),
  );
  return { id: 'look', studentId: 'look', questionIds: items.map((item) => item.id), answers };
}

interface ScoredProps {
  question: Question;
  award: Award;
  tried: Tried;
  withComments: boolean;
}

function Scored({ question, award, tried, withComments }: ScoredProps) {
  const response = tried[question.id];
  const answer = response && { response, at: isoNow() };
  const comments = withComments && answer ? commentsByKey(question, answer, award) : [];
  const words =
    award.state === 'waiting'
      ? 'marked by hand'
      : award.points === null
        ? 'there is no key yet'
        : `${points(award.points)} of ${points(award.max)}`;
  return (
    <div className={styles.scored}>
      <FillGlyph {...awardGlyph(award)} size={16} /> {words}
      {comments.map((comment) => (
        <p key={comment} className="keepLines">
          {comment}
        </p>
      ))}
    </div>
  );
}

/** Makes what is filled in the key, after a look at what that changes. */
function KeyFromThis({ paper, tried }: { paper: Paper; tried: Tried }) {
  const changes = useMemo(
    () => keyChanges(paper.questions, tried, () => nanoid(12)),
    [paper.questions, tried],
  );
  const numbers = numbersOf(paper.questions);
  const take = () => {
    const changed = new Map(changes.map((change) => [change.question.id, change.changed]));
    const questions = paper.questions.map((question) => changed.get(question.id) ?? question);
    void act(
      changePaper(
        { ...paper, questions },
        `Key of ${counted(changes.length, 'question')} set from these answers`,
        undefined,
        isoNow(),
      ),
    );
  };
  return (
    <MarginBlock title="Make this the key">
      {changes.length === 0 ? (
        <p className={styles.points}>
          Fill in the right answers to make them the key. So far nothing would change.
        </p>
      ) : (
        <>
          <ul className={styles.changes}>
            {changes.map(({ question, before, after }) => (
              <li key={question.id}>
                <strong>{numbers.get(question.id)}</strong> {before ? <s>{before}</s> : 'no key'} → {after}
              </li>
            ))}
          </ul>
          <Button onClick={take}>Make this the key</Button>
        </>
      )}
    </MarginBlock>
  );
}
