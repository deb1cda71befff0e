import { Checkbox, NumberInput } from '@mantine/core';
import { isShown, type Invites } from '@/core/model/release';
import type { SittingData } from '@/desk/useSitting';
import { WhenField } from '@/desk/WhenField';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted, dayAndTime } from '@/words/format';
import { useAfterwards } from './useAfterwards';
import { nextFriday, type PlanAtHand } from './usePlan';
import styles from './plan.module.css';

/** What students may do once they have their results, and what they did. */
export function InvitesBlock({ sitting, at }: { sitting: SittingData; at: PlanAtHand }) {
  const invites: Invites = at.plan.invites ?? { asks: false, correct: null };
  const { correct } = invites;
  const set = (part: Partial<Invites>) => at.setOption({ invites: { ...invites, ...part } });
  const { corrections, questions, waiting } = useAfterwards(sitting);
  const told = correct !== null && at.stages.some(({ shows }) => isShown(shows, 'accepted'));
  return (
    <MarginBlock title="What they can do with it">
      <div className={styles.fields}>
        <Checkbox
          size="sm"
          label="Ask about a mark"
          checked={invites.asks}
          onChange={(event) => set({ asks: event.currentTarget.checked })}
        />
        <Checkbox
          size="sm"
          label="Answer again what they missed"
          checked={correct !== null}
          onChange={(event) =>
            set({ correct: event.currentTarget.checked ? { share: 0.5, until: null } : null })
          }
        />
        {correct && (
          <>
            <NumberInput
              label="Percent of the lost points to win back"
              size="sm"
              maw="12rem"
              min={0}
              max={100}
              allowDecimal={false}
              value={Math.round(correct.share * 100)}
              onChange={(value) =>
                set({ correct: { ...correct, share: Math.min(100, Math.max(0, Number(value) || 0)) / 100 } })
              }
            />
            <WhenField
              label="Until"
              without="no end"
              value={correct.until}
              start={() => nextFriday(Date.now())}
              change={(until) => set({ correct: { ...correct, until } })}
            />
            <p>
              Students see their points for a question before they can answer it again, once each
              {correct.until ? `, until ${dayAndTime(correct.until, sitting.now)}` : ''}.
              {told && ' Once they see the accepted answers, they no longer can.'}
            </p>
          </>
        )}
        {corrections.length + questions.length > 0 && (
          <p>
            <a href={`/sittings/${sitting.sitting.id}/afterwards`}>
              {counted(corrections.length, 'correction')}, {counted(questions.length, 'question')} about marks
            </a>
            {waiting > 0 && `, ${waiting} ${waiting === 1 ? 'waits' : 'wait'} for you`}
          </p>
        )}
      </div>
    </MarginBlock>
  );
}
