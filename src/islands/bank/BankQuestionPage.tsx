import { useMemo } from 'react';
import type { Question } from '@/core/kinds';
import type { BankQuestion } from '@/core/model/bank';
import { questionFindings } from '@/core/scoring/paperFindings';
import { changeBankQuestion } from '@/store/bank';
import { desk } from '@/store/tables';
import { DeskReady } from '@/desk/DeskReady';
import { useDraft, type DraftSource } from '@/desk/useDraft';
import { EmptyState } from '@/ui/EmptyState';
import { findingWords } from '@/words/findings';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import type { KeepQuestion } from '../kinds/KindView';
import { QuestionFields } from '../questions/QuestionFields';
import { QuestionMargin } from '../questions/QuestionMargin';
import styles from './bank.module.css';

/** One question of the bank, written where it is kept. */
export function BankQuestionPage({ bankId }: { bankId: string }) {
  return (
    <DeskReady>
      <BankQuestionDraft bankId={bankId} />
    </DeskReady>
  );
}

function BankQuestionDraft({ bankId }: { bankId: string }) {
  const source = useMemo(
    (): DraftSource<BankQuestion> => ({
      read: async () => desk.bank.get(bankId),
      change: changeBankQuestion,
    }),
    [bankId],
  );
  const { draft: entry, keep } = useDraft(source);
  if (entry === null)
    return <EmptyState title="Question not found" action={<a href="/bank">Go to the bank</a>} />;
  if (!entry) return null;
  const { question } = entry;
  const keepQuestion: KeepQuestion<Question> = (next, said, field) =>
    keep({ ...entry, question: next }, said, field);
  const findings = questionFindings(question);
  return (
    <TwoColumns
      marginLabel="About the question"
      margin={
        <>
          <MarginBlock title={findings.length === 0 ? 'Nothing to fix' : 'To check'}>
            <ul className={styles.uses}>
              {findings.map((finding) => (
                <li key={`${finding.code} ${finding.field ?? ''} ${finding.detail ?? ''}`}>
                  {findingWords(finding, [])}
                </li>
              ))}
            </ul>
            <p className={styles.soft}>
              Papers that use it keep their version until you pass the change on there. Answers stay with the
              version that was sat.
            </p>
            <a href="/bank">Back to the bank</a>
          </MarginBlock>
          <QuestionMargin question={question} name="this question" keep={keepQuestion} />
        </>
      }
    >
      <h1 className={styles.title}>Bank question</h1>
      <QuestionFields question={question} name="this question" keep={keepQuestion} />
    </TwoColumns>
  );
}
