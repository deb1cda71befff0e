import { Button, Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { CountRule } from '@/core/model/sitting';
import type { Paper } from '@/core/model/paper';
import { givenCount, paperPoints } from '@/core/model/parts';
import { readyToSit } from '@/core/scoring/paperFindings';
import {
  settingsFault,
  settingsSentence,
  settingsWarnings,
  tooShortFor,
  type SittingSettings,
} from '@/core/running/settings';
import { groupRows, studentsIn } from '@/store/queries';
import { createSitting } from '@/store/sittings';
import { desk } from '@/store/tables';
import { isoNow, useNow } from '@/ui/clock';
import { act } from '@/ui/desk/act';
import { DeskReady } from '@/ui/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { counted, dayAndTime, duration, pointsRange } from '@/ui/format';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { forgivenFrom } from './forgiven';
import { MannerFields } from './MannerFields';
import { RehearsalStart } from './RehearsalStart';
import styles from './run.module.css';
import { Templates } from './Templates';
import { WhenField } from './WhenField';

/** Giving a paper to groups. */
export function GivePage({ paperId }: { paperId: string }) {
  return (
    <DeskReady>
      <Give paperId={paperId} />
    </DeskReady>
  );
}

function Give({ paperId }: { paperId: string }) {
  const paper = useLiveQuery(async () => (await desk.papers.get(paperId)) ?? null, [paperId]);
  const groups = useLiveQuery(groupRows);
  if (paper === null)
    return <EmptyState title="No such paper on this desk" action={<a href="/">To the desk</a>} />;
  if (!paper || !groups) return null;
  if (!readyToSit(paper))
    return (
      <EmptyState
        title={`${paper.title || 'This paper'} is not ready yet`}
        action={<a href={`/papers/${paperId}`}>Back to writing</a>}
      >
        What stops it is listed in its margin.
      </EmptyState>
    );
  if (groups.length === 0 && !new URLSearchParams(window.location.search).has('guests'))
    return (
      <EmptyState title="There is nobody to give it to yet" action={<a href="/groups?new=1">Make a group</a>}>
        Make a group and bring its students in; then come back here.
      </EmptyState>
    );
  return <GiveForm paper={paper} groups={groups} />;
}

type GroupChoice = Awaited<ReturnType<typeof groupRows>>[number];

function GiveForm({ paper, groups }: { paper: Paper; groups: GroupChoice[] }) {
  const now = useNow(30_000);
  const [settings, setSettings] = useState<SittingSettings>(() => ({
    groupIds: groups.length === 1 ? groups.map(({ group }) => group.id) : [],
    opensAt: null,
    closesAt: null,
    timeLimitMs: null,
    accessCode: '',
    attempts: 1,
    counts: 'last',
    guests: false,
  }));
  const [title, setTitle] = useState(paper.title);
  const change = (part: Partial<SittingSettings>) => setSettings({ ...settings, ...part });
  const fault = settingsFault(settings, now);
  const words = { when: (instant: string) => dayAndTime(instant, now), howLong: duration };
  const give = async () => {
    const opensAt = settings.opensAt ?? isoNow();
    const made = await act(
      createSitting(
        { ...settings, opensAt, paperId: paper.id, title: title.trim() || paper.title },
        isoNow(),
      ),
    );
    if (made) window.location.assign(`/sittings/${made.result}/run`);
  };
  const chosen = groups.filter(({ group }) => settings.groupIds.includes(group.id));
  // Who is in two of the groups gets it once.
  const students =
    useLiveQuery(async () => (await studentsIn(settings.groupIds)).length, [settings.groupIds.join()]) ?? 0;
  return (
    <TwoColumns
      marginLabel="What the settings amount to"
      margin={
        <>
          <MarginBlock title="So it will be">
            <p>
              {settingsSentence(
                settings,
                chosen.map(({ group }) => group.name),
                words,
              )}
            </p>
            {settingsWarnings(settings, words).map((warning) => (
              <p key={warning} className={styles.warning} role="note">
                {warning}
              </p>
            ))}
            {tooShortFor(settings.timeLimitMs, givenCount(paper)) && (
              <p className={styles.fault} role="note">
                {counted(givenCount(paper), 'question')} in {duration(settings.timeLimitMs ?? 0)}: that is
                less than twenty seconds each.
              </p>
            )}
            {fault && (
              <p className={styles.fault} role="alert">
                {faultWords[fault]}
              </p>
            )}
            <Button variant="filled" disabled={fault !== null} onClick={() => void give()}>
              Give it to {students === 0 && settings.guests ? 'guests' : counted(students, 'student')}
            </Button>
          </MarginBlock>
          <Templates settings={settings} take={setSettings} />
          <RehearsalStart paper={paper} settings={settings} />
        </>
      }
    >
      <h1 className={styles.heading}>Give out: {paper.title}</h1>
      <p className={styles.soft}>
        {counted(givenCount(paper), 'question')}, {pointsRange(paperPoints(paper))} points.{' '}
        <a href={`/papers/${paper.id}`}>Back to writing</a>
      </p>
      <form className={styles.give} onSubmit={(event) => event.preventDefault()}>
        <TextInput
          label="Name of this sitting"
          description="Students see it. Given out more than once, a paper needs names that tell the sittings apart."
          size="sm"
          maxLength={200}
          value={title}
          onChange={(event) => setTitle(event.currentTarget.value)}
        />
        <fieldset className={styles.field}>
          <legend>To whom</legend>
          {groups.map(({ group, students: size }) => (
            <Checkbox
              key={group.id}
              label={`${group.name} (${counted(size, 'student')})`}
              checked={settings.groupIds.includes(group.id)}
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
          <WhenField
            label="Opens"
            without="open at once"
            value={settings.opensAt}
            start={isoNow}
            change={(opensAt) => change({ opensAt })}
          />
          <WhenField
            label="Closes"
            without="no end"
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
              description="Empty: no limit. The clock starts when a student starts."
              size="sm"
              min={1}
              max={10_000}
              allowDecimal={false}
              value={settings.timeLimitMs === null ? '' : settings.timeLimitMs / 60_000}
              onChange={(value) => change({ timeLimitMs: Number(value) > 0 ? Number(value) * 60_000 : null })}
            />
            <NumberInput
              label="Attempts"
              description="How often each student may sit it."
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
              description="Empty: none asked. Otherwise said aloud in the room, so that nobody starts elsewhere."
              size="sm"
              maxLength={40}
              value={settings.accessCode}
              onChange={(event) => change({ accessCode: event.currentTarget.value })}
            />
          </div>
          <NumberInput
            label="Minutes of broken connection forgiven"
            description="What was typed before the end and arrives so much later still counts. Empty: it is kept, and you decide."
            size="sm"
            w="24rem"
            min={1}
            max={1440}
            allowDecimal={false}
            value={settings.forgivenMs === undefined ? '' : settings.forgivenMs / 60_000}
            onChange={(value) => change({ forgivenMs: forgivenFrom(value) })}
          />
          <Checkbox
            label="Guests may come in, with that code and a typed name"
            checked={settings.guests}
            onChange={(event) => change({ guests: event.currentTarget.checked })}
          />
        </fieldset>
        <MannerFields manner={settings} change={change} />
      </form>
    </TwoColumns>
  );
}

const faultWords = {
  noGroup: 'Choose at least one group.',
  closesBeforeOpening: 'It would close before it opens.',
  closesInThePast: 'It would be closed already.',
  guestsWithoutCode: 'Guests need an access code to come in with.',
};
