import { Button, Checkbox, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import type { Question } from '@/core/kinds';
import type { Repair } from '@/core/model/repair';
import type { Sitting } from '@/core/model/sitting';
import type { RepairDraft } from '@/core/repair/draft';
import type { RepairEffect } from '@/core/repair/effect';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { repairQuestion, sittingsWithQuestion, withdrawRepair } from '@/store/repairs';
import { isoNow } from '@/ui/clock';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted, dayAndTime } from '@/words/format';
import { repairMessage, ruleWords } from '@/words/repairs';
import type { QuestionRow } from '@/desk/useAnalysis';
import styles from './repair.module.css';

interface TakeRepairProps {
  sitting: SittingData;
  draft: RepairDraft;
  row: QuestionRow;
  words: string;
  effect: RepairEffect;
  compare: () => void;
}

/** Why, where else, and doing it. */
export function TakeRepair({ sitting, draft, row, words, effect, compare }: TakeRepairProps) {
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
    const message = repairMessage(sitting.sitting.title, row.number, reason.trim());
    const plan = {
      ...{ ...draft, sittingId: sitting.sitting.id, reason: reason.trim(), also, bank: bank && linked },
      messages: write ? handedBack.changed.map(({ student }) => ({ studentId: student.id, ...message })) : [],
    };
    void act(repairQuestion(plan, said, isoNow()));
  };
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
        {handedBack.changed.length > 0 && (
          <Checkbox
            size="sm"
            label={`Also write to the ${counted(handedBack.changed.length, 'student')} who would see another total`}
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
export function RepairedBefore({
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
            <span className={styles.soft}>({repairWords(repair)})</span>
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

const repairWords = ({ rule, nobodyLoses }: Repair): string =>
  [rule === null ? 'key or points changed' : ruleWords(rule), ...(nobodyLoses ? ['nobody loses'] : [])].join(
    ', ',
  );
