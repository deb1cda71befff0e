import { Button, NativeSelect } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { sameQuestion, type BankRow, type QuestionRecord } from '@/core/bank/bankRows';
import { kindNamed, kindNames, kindOf, type KindName, type Question } from '@/core/kinds';
import type { Paper } from '@/core/model/paper';
import { newBankQuestion, putIntoBank, takeIntoPaper, takeOutOfBank } from '@/store/bank';
import { questionHistory } from '@/store/questionHistory';
import { desk } from '@/store/tables';
import { looksWrongTitle } from '@/words/looksWrong';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { counted, dayAndTime, percent, points } from '@/words/format';
import { Rich } from '@/ui/Rich';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './bank.module.css';

/** A question that is written in the bank first, and for no paper yet. */
export function NewBankQuestion() {
  const begin = async (kind: KindName) => {
    const made = await act(newBankQuestion(kind, isoNow()));
    if (made) window.location.assign(`/bank/${made.result}`);
  };
  return (
    <MarginBlock title="New question in the bank">
      <div className={styles.kinds} role="group" aria-label="New question">
        {kindNames.map((name) => (
          <Button key={name} size="compact-sm" onClick={() => void begin(name)}>
            {kindNamed(name).label}
          </Button>
        ))}
      </div>
    </MarginBlock>
  );
}

interface OpenRowProps {
  row: BankRow;
  papers: Paper[];
  now: number;
  /** Called with the id that the question has from now on. */
  moved: (id: string | null) => void;
}

/** What is known of one question, and what can be done with it. */
export function OpenRow({ row, papers, now, moved }: OpenRowProps) {
  const { question, entry, uses, records } = row;
  const [paperId, setPaperId] = useState(
    papers.find((paper) => uses.every((use) => use.paperId !== paper.id))?.id ?? '',
  );
  const [use] = uses;
  const putIn = async () => {
    const put = use && (await act(putIntoBank(use.paperId, use.questionId, isoNow())));
    if (put) moved(put.result);
  };
  const takeIn = async () => {
    const linked = uses[0]?.questionId;
    if (!(await act(takeIntoPaper(row, paperId, isoNow())))) return;
    // A question of a paper alone is in the bank from now on, under another id.
    const fresh = (await desk.papers.get(uses[0]?.paperId ?? ''))?.questions.find(
      (each) => each.id === linked,
    );
    moved(entry?.id ?? fresh?.bankId ?? null);
  };
  return (
    <>
      <MarginBlock title={`${kindOf(question).label}, ${counted(question.points, 'point')}`}>
        <div>
          <Rich text={question.stem} />
        </div>
        <p className="keepLines">{kindOf(question).keyText(question) || 'no key yet'}</p>
        {question.tags.length > 0 && <p className={styles.soft}>{question.tags.join(', ')}</p>}
        {entry && <a href={`/bank/${entry.id}`}>Edit in the bank</a>}
      </MarginBlock>
      <MarginBlock
        title={uses.length === 0 ? 'Not used in any paper' : `Used in ${counted(uses.length, 'paper')}`}
      >
        <ul className={styles.uses}>
          {uses.map((each) => (
            <li key={each.questionId}>
              <a href={`/papers/${each.paperId}`}>{each.title || 'paper without a title'}</a>
              {!each.same && <span className={styles.soft}> changed since</span>}
            </li>
          ))}
        </ul>
      </MarginBlock>
      {records.length > 0 && (
        <MarginBlock title="Results">
          <ul className={styles.uses}>
            {records.map((each) => (
              <SatRecord
                key={`${each.sittingId} ${each.questionId}`}
                record={each}
                question={question}
                now={now}
              />
            ))}
          </ul>
        </MarginBlock>
      )}
      <MarginBlock title="Use">
        <NativeSelect
          size="sm"
          aria-label="Paper to add it to"
          value={paperId}
          data={[
            { value: '', label: 'choose a paper' },
            ...papers.map(({ id, title }) => ({ value: id, label: title || 'paper without a title' })),
          ]}
          onChange={(event) => setPaperId(event.currentTarget.value)}
        />
        <Button variant="filled" disabled={!paperId} onClick={() => void takeIn()}>
          Add to paper
        </Button>
        <p className={styles.soft}>
          It is added at the end and stays linked, so changes can be passed on either way.
        </p>
        {entry === null ? (
          <Button onClick={() => void putIn()}>Add to bank</Button>
        ) : (
          <Button
            onClick={() => {
              void act(takeOutOfBank(entry.id, isoNow()));
              moved(null);
            }}
          >
            Remove from bank
          </Button>
        )}
      </MarginBlock>
    </>
  );
}

/** One sitting with the question, and how it was worded then where that is not how it is now. */
/** What looked wrong with it in a sitting, and what was done about it. */
function History({ record: { sittingId, questionId }, now }: { record: QuestionRecord; now: number }) {
  const minute = Math.floor(now / 60_000);
  const history = useLiveQuery(
    () => questionHistory(sittingId, questionId, minute * 60_000),
    [sittingId, questionId, minute],
  );
  if (!history || history.findings.length + history.repairs.length === 0) return null;
  const query = new URLSearchParams({ question: questionId }).toString();
  return (
    <ul className={styles.uses}>
      {history.findings.map(({ code }, index) => (
        <li key={index}>
          <a href={`/sittings/${sittingId}/repair?${query}`}>{looksWrongTitle[code]}</a>
        </li>
      ))}
      {history.repairs.map(({ id, at, reason }) => (
        <li key={id}>
          Repaired {dayAndTime(at, now)}: {reason}
        </li>
      ))}
    </ul>
  );
}

function SatRecord({ record, question, now }: { record: QuestionRecord; question: Question; now: number }) {
  const { sittingId, title, version, opensAt, scored, facility, discrimination, asSat } = record;
  const figures = [
    facility !== null && percent(facility),
    discrimination !== null && `discrimination ${points(discrimination)}`,
  ].filter(Boolean);
  return (
    <li>
      <a href={`/sittings/${sittingId}/analyse`}>{title}</a>
      <span className={styles.soft}>
        {' '}
        {version !== null && `version ${version}, `}
        {dayAndTime(opensAt, now)}:{' '}
        {scored > 0 ? `${counted(scored, 'answer')}, ` : 'no answer has points yet'}
        {figures.join(', ')}
      </span>
      <History record={record} now={now} />
      {asSat && !sameQuestion(asSat, question) && (
        <details className={styles.soft}>
          <summary>as it was then</summary>
          <Rich text={asSat.stem} />
          <p className="keepLines">
            {kindOf(asSat).keyText(asSat) || 'no key'} · {counted(asSat.points, 'point')}
          </p>
        </details>
      )}
    </li>
  );
}
