import { Button, Checkbox, Select } from '@mantine/core';
import type { Sitting } from '@/core/model/sitting';
import { planTemplates, templateStages, type PlanTemplate } from '@/core/handback/planFindings';
import { showing, type PlanStage } from '@/core/model/release';
import { act } from '@/desk/act';
import { ShowsChoice } from '@/desk/ShowsChoice';
import type { SittingData } from '@/desk/useSitting';
import { newId } from '@/store/ids';
import { openStage } from '@/store/releases';
import { changeSitting } from '@/store/sittings';
import { isoNow } from '@/ui/clock';
import { useAtOnce } from '@/ui/useAtOnce';
import { MarginBlock } from '@/ui/TwoColumns';
import { duration } from '@/words/format';
import { done } from '@/words/done';
import { afterSentence, templateWords } from '@/words/releases';
import { afterHandingIn } from './PlanPicture';
import { LengthField, StageFields } from './StageFields';
import { useYes } from './useYes';
import { nextFriday, type PlanAtHand } from './usePlan';
import styles from './plan.module.css';

interface PlanMarginProps {
  sitting: SittingData;
  at: PlanAtHand;
  picked: string;
  pick: (id: string) => void;
}

/** The stage that is picked, and what holds for all of them. */
export function PlanMargin({ sitting, at, picked, pick }: PlanMarginProps) {
  const { stages, plan, change } = at;
  const index = stages.findIndex(({ id }) => id === picked);
  const stage = stages[index];
  const put = (next: PlanStage) => change(stages.map((each) => (each.id === next.id ? next : each)));
  const add = () => {
    const next: PlanStage = {
      ...{ id: newId(), starts: 'hand', at: null, until: null, lastsMs: null },
      shows: stages.at(-1)?.shows ?? showing('total'),
    };
    change([...stages, next]);
    pick(next.id);
  };
  const remove = () => {
    change(stages.filter(({ id }) => id !== picked));
    pick(stages.find(({ id }) => id !== picked)?.id ?? '');
  };
  const waitsForHand = stage?.starts === 'hand' && stage.at === null;
  const inForce = plan.stages.some(({ id }) => id === picked);
  const mayOpen = waitsForHand && inForce && at.have > 0;
  const yes = useYes(mayOpen ? at.spoiltBy([{ ...stage, starts: 'handedBack' }]) : null, at.mayStillSit);
  return (
    <>
      {picked === afterHandingIn && sitting.sitting.after ? (
        <AfterBlock sitting={sitting.sitting} gone={() => pick(stages[0]?.id ?? '')} />
      ) : (
        stage && (
          <MarginBlock title={stages.length > 1 ? `Stage ${index + 1}` : 'What they see'}>
            <StageFields
              stage={stage}
              change={put}
              remove={stages.length > 1 ? remove : undefined}
              asked={mayOpen ? yes.box : null}
              openNow={
                mayOpen && yes.may
                  ? () => void act(openStage(sitting.sitting.id, stage.id, isoNow()))
                  : undefined
              }
            />
          </MarginBlock>
        )
      )}
      <MarginBlock title="Plan">
        <div className={styles.fields}>
          <div className={styles.row}>
            <Button size="compact-sm" onClick={add}>
              Add stage
            </Button>
            {!sitting.sitting.after && (
              <Button
                size="compact-sm"
                onClick={() => {
                  void changeAfter(sitting.sitting, { after: showing('total') });
                  pick(afterHandingIn);
                }}
              >
                Add one after handing in
              </Button>
            )}
          </div>
          <Select
            label="Begin with a template"
            size="sm"
            placeholder="Choose"
            data={planTemplates.map((value) => ({ value, label: templateWords[value] }))}
            value={null}
            onChange={(value) => {
              if (value === null) return;
              const next = templateStages(value as PlanTemplate, nextFriday(Date.now()), newId);
              change(next);
              pick(next[0]?.id ?? '');
            }}
          />
          <Checkbox
            size="sm"
            label="Hand back later ones by themselves, once marked"
            description={
              at.spoiltBy(plan.stages) && plan.follows !== true
                ? 'Not while some can still sit the paper and others would see what is right.'
                : undefined
            }
            disabled={plan.follows !== true && at.spoiltBy(plan.stages) !== null}
            checked={plan.follows === true}
            onChange={(event) => at.setOption({ follows: event.currentTarget.checked })}
          />
          {sitting.sitting.counts !== 'mean' && (
            <Checkbox
              size="sm"
              label="Show points and comments of a question only when it is marked for everyone"
              checked={plan.whole === true}
              onChange={(event) => at.setOption({ whole: event.currentTarget.checked })}
            />
          )}
        </div>
      </MarginBlock>
    </>
  );
}

const changeAfter = (sitting: Sitting, part: Pick<Sitting, 'after' | 'afterMs'>) =>
  act(changeSitting({ ...sitting, ...part }, done.afterChanged, isoNow(), sitting));

/** What is seen straight after handing in, before anything is handed back. */
function AfterBlock({ sitting: kept, gone }: { sitting: Sitting; gone: () => void }) {
  const [sitting, show] = useAtOnce(kept);
  const { after, afterMs } = sitting;
  if (!after) return null;
  const set = (part: Pick<Sitting, 'after' | 'afterMs'>) => {
    show({ ...sitting, ...part }, changeAfter(sitting, part));
  };
  return (
    <MarginBlock title="Straight after handing in">
      <div className={styles.fields}>
        <p>{afterSentence(after, afterMs, duration)}</p>
        <LengthField
          label="For how long (minutes)"
          ms={afterMs ?? null}
          unitMs={60_000}
          most={100_000}
          change={(ms) => set({ after, afterMs: ms ?? undefined })}
        />
        <ShowsChoice shows={after} setShows={(shows) => set({ after: shows, afterMs })} without={['grade']} />
        <div className={styles.row}>
          <Button
            size="compact-sm"
            onClick={() => {
              void changeAfter(sitting, { after: undefined, afterMs: undefined });
              gone();
            }}
          >
            Remove stage
          </Button>
        </div>
      </div>
    </MarginBlock>
  );
}
