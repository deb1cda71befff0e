import type { Suspect } from '@/core/analysis/sittingLooksWrong';
import { fewestStudents } from '@/core/analysis/looksWrong';
import type { SittingData } from '@/desk/useSitting';
import { MarginBlock } from '@/ui/TwoColumns';
import { looksWrongTitle } from '@/words/looksWrong';
import { FindingWords } from './FindingWords';
import type { QuestionRow } from '@/desk/useAnalysis';
import styles from './analyse.module.css';

interface SuspectsBlockProps {
  suspects: Suspect[] | null | undefined;
  sitting: SittingData;
  rows: readonly QuestionRow[];
  open: (questionId: string) => void;
}

/** What looks wrong, gravest first, each with its figures and what can be done. */
export function SuspectsBlock({ suspects, sitting, rows, open }: SuspectsBlockProps) {
  const sittingId = sitting.sitting.id;
  const numbers = new Map(rows.map(({ question, number }) => [question.id, number]));
  const all = (suspects ?? []).flatMap(({ question, findings }) =>
    findings.map((found) => ({ question, found })),
  );
  return (
    <MarginBlock title="What looks wrong">
      {suspects === undefined && <p className={styles.soft}>Looking through the answers…</p>}
      {suspects === null && (
        <p className={styles.soft}>
          Fewer than {fewestStudents} students have handed in: nothing can be told of single questions yet.
        </p>
      )}
      {suspects?.length === 0 && <p>Nothing stands out.</p>}
      <ol className={styles.suspects}>
        {all.map(({ question, found }, index) => (
          <li key={index}>
            <button type="button" className={styles.suspect} onClick={() => open(question.id)}>
              {numbers.get(question.id)}: {looksWrongTitle[found.code]}
            </button>
            <p>
              <FindingWords found={found} sittingId={sittingId} />
            </p>
            {found.code !== 'markerApart' ? (
              <a
                href={`/sittings/${sittingId}/repair?${new URLSearchParams({ question: question.id }).toString()}`}
              >
                Try a repair
              </a>
            ) : (
              <a href={`/sittings/${sittingId}/markers`}>Compare the markers</a>
            )}
          </li>
        ))}
      </ol>
    </MarginBlock>
  );
}
