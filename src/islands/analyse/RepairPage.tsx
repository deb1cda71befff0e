import { Checkbox } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useDeferredValue, useMemo, useState } from 'react';
import { plainText } from '@/core/basics/richWords';
import type { Question } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import { inFigures } from '@/core/seats/seats';
import { asItStands, changesScoring, type RepairDraft } from '@/core/repair/draft';
import { repairEffect, type RepairEffect } from '@/core/repair/effect';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { desk } from '@/store/tables';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { looksWrongTitle } from '@/words/looksWrong';
import { draftWords } from '@/words/repairs';
import { FindingWords } from './FindingWords';
import { EditKey, QuickRepairs, RuleChoice } from './RepairChoices';
import { EffectOf, Tries, type Tried } from './RepairEffect';
import { RepairedBefore, TakeRepair } from './TakeRepair';
import { useAnalysis, type Analysis, type QuestionRow } from '@/desk/useAnalysis';
import { useLines } from './useLines';
import styles from './repair.module.css';

/** Putting a question right after it was sat: what could be done, what it would do, and doing it. */
export function RepairPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="analyse">
      {(sitting) => <Choose sitting={sitting} />}
    </SittingPage>
  );
}

function Choose({ sitting }: { sitting: SittingData }) {
  const seats = useMemo(() => inFigures(sitting.seats), [sitting.seats]);
  const analysis = useAnalysis(sitting, seats);
  const asked = new URLSearchParams(location.search).get('question');
  const row = analysis.rows.find(({ question }) => question.id === asked) ?? analysis.rows[0];
  const paperQuestion = sitting.paper.questions.find((each) =>
    itemsOf([each]).some(({ id }) => id === row?.question.id),
  );
  if (!row || !paperQuestion || sitting.sitting.paperVersion === null)
    return (
      <EmptyState
        title="Nothing to repair yet"
        action={<a href={`/papers/${sitting.sitting.paperId}`}>Change the paper in Write</a>}
      >
        Nobody has started this sitting: students get the paper as it is when the first one starts.
      </EmptyState>
    );
  return (
    <RepairQuestion
      // After a repair it is thought about anew.
      key={`${row.question.id} ${sitting.repairs.length} ${sitting.sitting.paperVersion}`}
      {...{ sitting, analysis, row, paperQuestion }}
    />
  );
}

interface RepairQuestionProps {
  sitting: SittingData;
  analysis: Analysis;
  row: QuestionRow;
  /** The question of the paper that the row is, or is a part of. */
  paperQuestion: Question;
}

function RepairQuestion({ sitting, analysis, row, paperQuestion }: RepairQuestionProps) {
  const { lines } = useLines(sitting);
  const itemId = row.question.id;
  const [draft, setDraft] = useState(() => asItStands(paperQuestion, row.question));
  const [tried, setTried] = useState<Tried[]>([]);
  const effect = useRepairEffect(sitting, useDeferredValue(draft), row.question, lines.student);
  const words = draftWords(draft, row.question);
  const keep = () =>
    effect && words && setTried([...tried.filter((each) => each.words !== words), { words, draft, effect }]);
  return (
    <TwoColumns
      marginLabel="What it would do"
      margin={
        <>
          <MarginBlock title={words ?? 'Nothing is changed yet'}>
            {effect ? (
              <EffectOf effect={effect} line={lines.student} />
            ) : (
              <p className={styles.soft}>
                Choose on the left what to do with the question: what it would do to everyone stands here
                before anything is done.
              </p>
            )}
          </MarginBlock>
          {effect && words && <TakeRepair {...{ sitting, draft, row, words, effect }} compare={keep} />}
          <Tries tried={tried} line={lines.student} choose={setDraft} current={draft} />
          <RepairedBefore sitting={sitting} row={row} paperQuestion={paperQuestion} />
        </>
      }
    >
      <div className={styles.head}>
        <h2>
          Question {row.number}: {plainText(row.question.stem)}
        </h2>
        <QuestionPicker rows={analysis.rows} current={itemId} />
      </div>
      {row.suspect?.findings.map((found, index) => (
        <p key={index}>
          <strong>{looksWrongTitle[found.code]}</strong>{' '}
          <FindingWords found={found} sittingId={sitting.sitting.id} />
        </p>
      ))}
      <QuickRepairs {...{ row, analysis, draft, setDraft, paperQuestion }} />
      <RuleChoice draft={draft} setDraft={setDraft} row={row} />
      <Checkbox
        size="sm"
        className={styles.nobody ?? ''}
        label="Nobody loses by it: whoever would have a smaller share of the points keeps what they have"
        checked={draft.nobodyLoses}
        onChange={(event) => setDraft({ ...draft, nobodyLoses: event.currentTarget.checked })}
      />
      <EditKey draft={draft} setDraft={setDraft} row={row} />
    </TwoColumns>
  );
}

/** What a draft would do; null while it would do nothing. */
function useRepairEffect(
  sitting: SittingData,
  draft: RepairDraft,
  item: Question,
  line: number,
): RepairEffect | null {
  const id = sitting.sitting.id;
  const scale = useLiveQuery(async () => (await desk.grades.get(id)) ?? null, [id]) ?? null;
  return useMemo(() => {
    if (!changesScoring(draft, item)) return null;
    return repairEffect(sitting, sitting.seats, draft, [line], new Date(sitting.now).toISOString(), scale);
  }, [sitting, draft, item, line, scale]);
}

function QuestionPicker({ rows, current }: { rows: readonly QuestionRow[]; current: string }) {
  return (
    <nav aria-label="Questions" className={styles.numbers}>
      {rows.map(({ question, number, suspect }) => (
        <a
          key={question.id}
          href={`?${new URLSearchParams({ question: question.id }).toString()}`}
          aria-current={question.id === current ? 'page' : undefined}
        >
          {number}
          {suspect && (
            <>
              <span aria-hidden> ◆</span>
              <span className="visuallyHidden"> looks wrong</span>
            </>
          )}
        </a>
      ))}
    </nav>
  );
}
