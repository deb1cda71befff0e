import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { sameQuestion } from '@/core/bank/bankRows';
import type { Question } from '@/core/kinds';
import { makeSeparate, putBack, putIntoBank, takeOver } from '@/store/bank';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './write.module.css';

/** How the open question stands to the bank, and what can be passed on between them. */
export function BankLink({ paperId, question }: { paperId: string; question: Question }) {
  const { bankId } = question;
  const entry = useLiveQuery(async () => (bankId ? ((await desk.bank.get(bankId)) ?? null) : null), [bankId]);
  if (entry === undefined) return null;
  if (entry === null)
    return (
      <MarginBlock title="Not in the bank">
        <Button justify="start" onClick={() => void act(putIntoBank(paperId, question.id, isoNow()))}>
          Add to bank
        </Button>
      </MarginBlock>
    );
  const same = sameQuestion(question, entry.question);
  return (
    <MarginBlock title={same ? 'Same as in the bank' : 'Differs from the bank'}>
      <div className={styles.actions}>
        {!same && (
          <>
            <Button justify="start" onClick={() => void act(putBack(paperId, question.id, isoNow()))}>
              Update the bank
            </Button>
            <Button justify="start" onClick={() => void act(takeOver(paperId, question.id, isoNow()))}>
              Use the bank’s version
            </Button>
          </>
        )}
        <Button justify="start" onClick={() => void act(makeSeparate(paperId, question.id, isoNow()))}>
          Unlink
        </Button>
      </div>
    </MarginBlock>
  );
}
