import { Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { CountRule } from '@/core/model/sitting';
import type { SittingSettings } from '@/core/sittings/settings';
import type { groupRows } from '@/store/queries';
import { isoNow } from '@/ui/clock';
import { counted } from '@/words/format';
import { forgivenFrom } from './forgiven';
import { MannerFields } from './MannerFields';
import styles from './run.module.css';
import { WhenField } from '@/desk/WhenField';

export type GroupChoice = Awaited<ReturnType<typeof groupRows>>[number];

/** What can no longer be changed, and why. */
export interface FixedRules {
  /** When it opens, and how it is sat. */
  start: boolean;
  /** The groups that can't be taken out. */
  groupIds?: readonly string[];
  why: string;
}

const groupsFixed = 'Groups in which somebody has started stay in; others can be added.';

const free: FixedRules = { start: false, why: '' };

interface RuleFieldsProps {
  settings: SittingSettings;
  groups: readonly GroupChoice[];
  change: (part: Partial<SittingSettings>) => void;
  fixed?: FixedRules;
}

/** The rules of a sitting: to whom, when, how; as they are given out and as they are changed. */
export function RuleFields({ settings, groups, change, fixed = free }: RuleFieldsProps) {
  return (
    <>
      <fieldset className={styles.field}>
        <legend>Groups</legend>
        {fixed.groupIds && fixed.groupIds.length > 0 && <p className={styles.soft}>{groupsFixed}</p>}
        {groups.map(({ group, students: size }) => (
          <Checkbox
            key={group.id}
            label={`${group.name} (${counted(size, 'student')})`}
            checked={settings.groupIds.includes(group.id)}
            disabled={fixed.groupIds?.includes(group.id) ?? false}
            onChange={(event) =>
              change({
                groupIds: event.currentTarget.checked
                  ? [...settings.groupIds, group.id]
                  : settings.groupIds.filter((id) => id !== group.id),
              })
            }
          />
        ))}
      </fieldset>
      <fieldset className={styles.field}>
        <legend>When</legend>
        {fixed.start && <p className={styles.soft}>The opening time {fixed.why}</p>}
        <WhenField
          label="Opens"
          without="open straight away"
          disabled={fixed.start}
          value={settings.opensAt}
          start={isoNow}
          change={(opensAt) => change({ opensAt })}
        />
        <WhenField
          label="Closes"
          without="no closing time"
          value={settings.closesAt}
          start={() => new Date(Date.parse(settings.opensAt ?? isoNow()) + 3 * 3_600_000).toISOString()}
          change={(closesAt) => change({ closesAt })}
        />
      </fieldset>
      <fieldset className={styles.field}>
        <legend>How</legend>
        <div className={styles.how}>
          <NumberInput
            label="Time limit in minutes"
            description="Empty: no limit. Each student’s time starts when they start."
            size="sm"
            min={1}
            max={10_000}
            allowDecimal={false}
            value={settings.timeLimitMs === null ? '' : settings.timeLimitMs / 60_000}
            onChange={(value) => change({ timeLimitMs: Number(value) > 0 ? Number(value) * 60_000 : null })}
          />
          <NumberInput
            label="Attempts"
            description="How many times each student may sit it."
            size="sm"
            min={1}
            max={50}
            allowDecimal={false}
            value={settings.attempts}
            onChange={(value) => change({ attempts: Math.min(50, Math.max(1, Number(value) || 1)) })}
          />
          {settings.attempts > 1 && (
            <NativeSelect
              label="Which one counts"
              size="sm"
              value={settings.counts}
              data={[
                { value: 'best', label: 'the best' },
                { value: 'last', label: 'the last' },
                { value: 'first', label: 'the first' },
                { value: 'mean', label: 'the mean of all' },
              ]}
              onChange={(event) => change({ counts: CountRule.parse(event.currentTarget.value) })}
            />
          )}
          <TextInput
            label="Access code"
            description="Optional. You say it in the room, so nobody starts elsewhere."
            size="sm"
            maxLength={40}
            value={settings.accessCode}
            onChange={(event) => change({ accessCode: event.currentTarget.value })}
          />
        </div>
        <NumberInput
          label="Minutes allowed for a lost connection"
          description="Answers typed before the end that arrive up to this much later still count. Empty: they are kept and you decide."
          size="sm"
          w="100%"
          maw="24rem"
          min={1}
          max={1440}
          allowDecimal={false}
          value={settings.forgivenMs === undefined ? '' : settings.forgivenMs / 60_000}
          onChange={(value) => change({ forgivenMs: forgivenFrom(value) })}
        />
        <Checkbox
          label="Guests can join with that code and their name"
          checked={settings.guests}
          onChange={(event) => change({ guests: event.currentTarget.checked })}
        />
      </fieldset>
      <MannerFields manner={settings} change={change} fixed={fixed.start ? fixed.why : ''} />
    </>
  );
}
