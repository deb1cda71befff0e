import { Button, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useRef, useState } from 'react';
import { changedBySettings, settingsFault, settingsOf, type SittingSettings } from '@/core/sittings/settings';
import { groupRows } from '@/store/queries';
import { changeSitting } from '@/store/sittings';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { dayAndTime, duration } from '@/words/format';
import { settingsFaultWords, settingsSentence } from '@/words/settings';
import { RuleFields, type FixedRules } from './RuleFields';
import sticky from '@/ui/stickyEnd.module.css';
import { withCourse } from '@/core/sittings/deskOrder';
import { CourseFields } from '@/desk/CourseFields';
import styles from './run.module.css';

const begunWhy = 'can’t change after the first student has started.';

/** All the rules of a sitting, for everyone; what can no longer be changed says why. Running attempts follow at once. */
export function ChangeRules({ sitting, done }: { sitting: SittingData; done: () => void }) {
  const { sitting: record, now, seats } = sitting;
  // As the rules were when this was opened: what is changed elsewhere meanwhile stays, and is said.
  const [base] = useState(record);
  const [settings, setSettings] = useState<SittingSettings>(() => settingsOf(record));
  const [title, setTitle] = useState(record.title);
  const [names, setNames] = useState({ course: record.course ?? '', term: record.term ?? '' });
  const groups = useLiveQuery(groupRows);
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => first.current?.focus(), []);
  const begun = seats.filter((seat) => seat.attemptCount > 0 || seat.aside.length > 0);
  const fixed: FixedRules = {
    start: begun.length > 0,
    groupIds: record.groupIds.filter((id) => begun.some(({ student }) => student.groupIds.includes(id))),
    why: begunWhy,
  };
  const words = { when: (instant: string) => dayAndTime(instant, now), howLong: duration };
  const sentence = (of: SittingSettings) => {
    const named = (groups ?? []).filter(({ group }) => of.groupIds.includes(group.id));
    return settingsSentence(
      of,
      named.map(({ group }) => group.name),
      words,
    );
  };
  const elsewhere = sentence(settingsOf(record)) !== sentence(settingsOf(base));
  // To close it now is a change like another; to give it out so would not be.
  const found = settingsFault(settings, now);
  const fault = found === 'closesInThePast' ? null : found;
  const keep = async () => {
    const changed = withCourse(changedBySettings(base, settings, isoNow()), names);
    const next = { ...changed, title: title.trim() || base.title };
    if (await act(changeSitting(next, 'Settings changed', isoNow(), base))) done();
  };
  return (
    <form
      className={styles.give}
      aria-label="Change settings"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <h2 className={styles.heading}>Change settings</h2>
      <TextInput
        ref={first}
        label="Name of this sitting"
        size="sm"
        maxLength={200}
        value={title}
        onChange={(event) => setTitle(event.currentTarget.value)}
      />
      <div className={styles.two}>
        <CourseFields names={names} change={setNames} about="If empty, the groups’ course." />
      </div>
      <RuleFields
        settings={settings}
        groups={groups ?? []}
        fixed={fixed}
        change={(part) => setSettings({ ...settings, ...part })}
      />
      {elsewhere && (
        <p className={styles.fault} role="status">
          Changed in another tab since you opened this. There it is now: {sentence(settingsOf(record))} Your
          changes are added to it.
        </p>
      )}
      {fault && (
        <p className={styles.fault} role="alert">
          {settingsFaultWords[fault]}
        </p>
      )}
      <div className={sticky.end}>
        <Button type="submit" variant="filled" disabled={fault !== null}>
          Save for everyone
        </Button>
        <Button onClick={done}>Cancel</Button>
      </div>
    </form>
  );
}
