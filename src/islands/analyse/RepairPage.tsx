import { Button, Checkbox, Radio, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { nanoid } from 'nanoid';
import { useDeferredValue, useMemo, useState } from 'react';
import { plainText } from '@/core/basics/richWords';
import { kindOf, type Question } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import type { RepairRule } from '@/core/kinds/repaired';
import type { Repair } from '@/core/model/repair';
import type { Sitting } from '@/core/model/sitting';
import { inFigures } from '@/core/seats/seats';
import { repairEffect, type RepairDraft, type RepairEffect } from '@/core/repair/effect';
import { act } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { acceptingQuestion, repairQuestion, sittingsWithQuestion, withdrawRepair } from '@/store/repairs';
import { sendMessages } from '@/store/outbox';
import { isoNow } from '@/ui/clock';
import { EmptyState } from '@/ui/EmptyState';
import { PointsField } from '@/ui/PointsField';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted, dayAndTime } from '@/words/format';
import { looksWrongTitle } from '@/words/looksWrong';
import { draftWords } from '@/words/repairs';
import { editorOf } from '../kinds/editors';
import { FindingWords } from './FindingWords';
import { EffectOf, Tries, type Tried } from './RepairEffect';
import { useAnalysis, type Analysis, type QuestionRow } from './useAnalysis';
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
  const start: RepairDraft = { before: paperQuestion, changed: null, itemId, rule: null, nobodyLoses: false };
  const [draft, setDraft] = useState(start);
  const [tried, setTried] = useState<Tried[]>([]);
  const effect = useRepairEffect(sitting, useDeferredValue(draft), lines.student);
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
          {effect && words && (
            <TakeRepair key={words} {...{ sitting, draft, row, words }} effect={effect} compare={keep} />
          )}
          <Tries tried={tried} line={lines.student} choose={setDraft} current={draft} />
          <Done sitting={sitting} row={row} paperQuestion={paperQuestion} />
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

/** What a draft would do; null while it would do nothing by itself. */
function useRepairEffect(sitting: SittingData, draft: RepairDraft, line: number): RepairEffect | null {
  return useMemo(() => {
    if (draft.changed === null && draft.rule === null) return null;
    return repairEffect(sitting, sitting.seats, draft, [line], new Date(sitting.now).toISOString());
  }, [sitting, draft, line]);
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

interface EditingProps {
  draft: RepairDraft;
  setDraft: (draft: RepairDraft) => void;
  row: QuestionRow;
}

/** What the answers themselves suggest: another option as the key, one more answer accepted. */
function QuickRepairs({
  row,
  analysis,
  draft,
  setDraft,
  paperQuestion,
}: EditingProps & { analysis: Analysis; paperQuestion: Question }) {
  const { question } = row;
  const answers = analysis.answersOf(question);
  if (kindOf(question).scoredBy === 'hand' || question.id !== paperQuestion.id) return null;
  const offers = answers.categories
    .filter(({ share, count }) => share !== null && share < 1 && count > 0)
    .sort((a, b) => b.count - a.count)
    .slice(0, 4)
    .flatMap((category) => {
      const wording = analysis.seats
        .filter(({ student }) => category.studentIds.includes(student.id))
        .map((seat) => wordingFor(paperQuestion, category.id, seat))
        .find((found) => found !== null);
      if (!wording) return [];
      const kind = kindOf(paperQuestion);
      const keyed =
        kind.withOptionRight && category.offered
          ? kind.keyedBy(paperQuestion, { picked: [category.id] }, nanoid)
          : null;
      return [{ category, wording, keyed }];
    });
  if (offers.length === 0) return null;
  return (
    <section aria-label="Answers that give less now">
      <h3 className={styles.offersHead}>What was answered and gives less now</h3>
      <ul className={styles.offers}>
        {offers.map(({ category, wording, keyed }) => (
          <li key={category.id}>
            <span className={styles.offer}>
              “{category.label}” <span className={styles.soft}>{counted(category.count, 'student')}</span>
            </span>
            {keyed && (
              <Button
                size="compact-sm"
                aria-pressed={same(draft.changed, keyed)}
                aria-label={`Make “${category.label}” the key`}
                onClick={() => setDraft({ ...draft, changed: keyed, rule: null })}
              >
                as the key instead
              </Button>
            )}
            {[1, 0.5].map((share) => {
              const changed = acceptingQuestion(paperQuestion, wording, share);
              return (
                changed && (
                  <Button
                    key={share}
                    size="compact-sm"
                    aria-pressed={same(draft.changed, changed)}
                    aria-label={`Accept “${category.label}” for ${share === 1 ? 'all the points' : 'half'}`}
                    onClick={() => setDraft({ ...draft, changed, rule: null })}
                  >
                    {share === 1 ? 'as right too' : 'for half'}
                  </Button>
                )
              );
            })}
          </li>
        ))}
      </ul>
    </section>
  );
}

const same = (a: Question | null, b: Question) => JSON.stringify(a) === JSON.stringify(b);

/** How an answer that falls into a category is put, for accepting it; null where its kind accepts no more. */
function wordingFor(question: Question, categoryId: string, seat: Analysis['seats'][number]) {
  const kind = kindOf(question);
  const response = seat.attempt?.answers[question.id]?.response;
  if (!response || !kind.unaccepted) return null;
  for (const wording of kind.unaccepted(question, response)) {
    const [category] = kind
      .categoriesOf(question, response)
      .filter(({ id, part }) => id === categoryId && (part === undefined || part.id === wording.id));
    if (category) return wording;
  }
  return null;
}

const rules: { value: string; rule: RepairRule | null; label: string }[] = [
  { value: 'key', rule: null, label: 'Score it by its key and its marks' },
  { value: 'everyone', rule: { kind: 'everyone' }, label: 'Everyone gets all its points' },
  { value: 'answered', rule: { kind: 'answered' }, label: 'Everyone who answered gets all its points' },
  {
    value: 'smaller',
    rule: { kind: 'dropped', maximum: 'smaller' },
    label: 'It doesn’t count: the maximum gets smaller, and the others stay as they are',
  },
  {
    value: 'same',
    rule: { kind: 'dropped', maximum: 'same' },
    label: 'It doesn’t count: the maximum stays, and each student’s share of the others stands for it',
  },
];

function RuleChoice({ draft, setDraft, row }: EditingProps) {
  const now = JSON.stringify(draft.rule);
  const chosen = rules.find(({ rule }) => JSON.stringify(rule) === now)?.value ?? 'key';
  const standing = row.question.repaired?.rule ?? null;
  return (
    <Radio.Group
      className={styles.rules ?? ''}
      label="Points for this question"
      value={chosen}
      onChange={(value) => {
        const rule = rules.find((each) => each.value === value)?.rule ?? null;
        // Where the key does not give the points, another key would say nothing.
        setDraft({ ...draft, rule, changed: rule === null ? draft.changed : null });
      }}
    >
      {rules.map(({ value, rule, label }) => (
        <Radio
          key={value}
          size="sm"
          value={value}
          label={JSON.stringify(rule) === JSON.stringify(standing) ? `${label} (as now)` : label}
        />
      ))}
    </Radio.Group>
  );
}

/** The question as in Write: its key, its points, its rule for part points, its tolerance. */
function EditKey({ draft, setDraft, row }: EditingProps) {
  const question = draft.changed ?? draft.before;
  const Edit = editorOf(question);
  const change = (changed: Question) =>
    setDraft({
      ...draft,
      changed: JSON.stringify(changed) === JSON.stringify(draft.before) ? null : changed,
    });
  return (
    <section aria-label="Key and points">
      <div className={styles.editHead}>
        <h3>Another key, other points</h3>
        <PointsField
          label={`Points for question ${row.number}`}
          value={question.points}
          onPoints={(points) => points !== null && change({ ...question, points })}
        />
        <span>points</span>
        {draft.changed && (
          <Button size="compact-sm" onClick={() => setDraft({ ...draft, changed: null })}>
            Back to the key as it is
          </Button>
        )}
      </div>
      <Edit question={question} keep={change} />
    </section>
  );
}

interface TakeRepairProps {
  sitting: SittingData;
  draft: RepairDraft;
  row: QuestionRow;
  words: string;
  effect: RepairEffect;
  compare: () => void;
}

/** Why, where else, and doing it. */
function TakeRepair({ sitting, draft, row, words, effect, compare }: TakeRepairProps) {
  const { handedBack } = effect;
  const [write, setWrite] = useState(false);
  const [reason, setReason] = useState('');
  const [also, setAlso] = useState<readonly string[]>([]);
  const [bank, setBank] = useState(false);
  const [asked, setAsked] = useState(false);
  const others = useOtherSittings(sitting.sitting, draft.before);
  const linked = draft.before.bankId !== undefined && draft.changed !== null;
  const missing = reason.trim() === '';
  const take = () => {
    setAsked(true);
    if (missing) return;
    const said = `Question ${row.number} repaired: ${words}`;
    void act(
      repairQuestion(
        { ...draft, sittingId: sitting.sitting.id, reason: reason.trim(), also, bank: bank && linked },
        said,
        isoNow(),
      ),
    ).then((done) => {
      if (done && write) void act(sendMessages(sitting.sitting.id, messages(), isoNow()));
    });
  };
  /** To those who have their results back and would see another total. */
  const messages = () =>
    effect.changes
      .filter(({ seat }) => seat.release)
      .map(({ seat }) => ({
        studentId: seat.student.id,
        subject: `${sitting.sitting.title}: your result has changed`,
        text: `Question ${row.number} was rescored: ${reason.trim()}\n\nYour result shows what changed.`,
      }));
  return (
    <MarginBlock title="Repair it">
      <form
        className={styles.take}
        onSubmit={(event) => {
          event.preventDefault();
          take();
        }}
      >
        <TextInput
          size="xs"
          label={
            handedBack.all > 0
              ? 'Reason, which students read in their results'
              : 'Reason, which students read later'
          }
          maxLength={300}
          value={reason}
          error={asked && missing ? 'Say why in a few words' : null}
          onChange={(event) => setReason(event.currentTarget.value)}
        />
        {others.map((other) => (
          <Checkbox
            key={other.id}
            size="sm"
            label={`Also in ${other.title}`}
            checked={also.includes(other.id)}
            onChange={(event) =>
              setAlso(
                event.currentTarget.checked ? [...also, other.id] : also.filter((id) => id !== other.id),
              )
            }
          />
        ))}
        {linked && (
          <Checkbox
            size="sm"
            label="Also change the question in the bank"
            checked={bank}
            onChange={(event) => setBank(event.currentTarget.checked)}
          />
        )}
        {handedBack.changed > 0 && (
          <Checkbox
            size="sm"
            label={`Also write to ${counted(messages().length, 'student')} who would see another share of the points`}
            checked={write}
            onChange={(event) => setWrite(event.currentTarget.checked)}
          />
        )}
        <div className={styles.buttons}>
          <Button type="submit" variant="filled" size="compact-md">
            {also.length > 0 ? `Repair it in ${also.length + 1} sittings` : 'Repair it'}
          </Button>
          <Button size="compact-md" onClick={compare}>
            Set beside others
          </Button>
        </div>
        <p className={styles.soft}>One act: Ctrl Z undoes it whole.</p>
      </form>
    </MarginBlock>
  );
}

function useOtherSittings(sitting: Sitting, question: Question): Sitting[] {
  return useLiveQuery(() => sittingsWithQuestion(sitting, question), [sitting, question]) ?? [];
}

/** What was repaired before, with the last to be withdrawn. */
function Done({
  sitting,
  row,
  paperQuestion,
}: {
  sitting: SittingData;
  row: QuestionRow;
  paperQuestion: Question;
}) {
  const repairs = sitting.repairs
    .filter(({ questionId }) => questionId === paperQuestion.id)
    .sort((a, b) => (a.at < b.at ? 1 : -1));
  if (repairs.length === 0) return null;
  return (
    <MarginBlock title="Repaired before">
      <ul className={styles.plainList}>
        {repairs.map((repair, index) => (
          <li key={repair.id}>
            {dayAndTime(repair.at, sitting.now)}: {repair.reason}{' '}
            <span className={styles.soft}>({ruleWords(repair)})</span>
            {index === 0 && (
              <Button
                size="compact-sm"
                onClick={() => void act(withdrawRepair(repair.id, row.number, isoNow()))}
              >
                Withdraw this repair
              </Button>
            )}
          </li>
        ))}
      </ul>
    </MarginBlock>
  );
}

const ruleWords = ({ rule, nobodyLoses }: Repair): string =>
  [
    rule === null
      ? 'key or points changed'
      : rule.kind === 'dropped'
        ? 'doesn’t count'
        : rule.kind === 'everyone'
          ? 'points for everyone'
          : 'points for who answered',
    ...(nobodyLoses ? ['nobody loses'] : []),
  ].join(', ');
