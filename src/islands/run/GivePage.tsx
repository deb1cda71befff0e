import { Button, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import type { Paper } from '@/core/model/paper';
import { givenCount, paperPoints } from '@/core/model/parts';
import { readyToSit } from '@/core/scoring/paperFindings';
import { settingsFault, settingsWarnings, tooShortFor, type SittingSettings } from '@/core/sittings/settings';
import { settingsFaultWords, settingsSentence, settingsWarningWords } from '@/words/settings';
import { groupRows, studentsIn } from '@/store/queries';
import { createSitting } from '@/store/sittings';
import { desk } from '@/store/tables';
import { isoNow, useNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { counted, dayAndTime, duration, pointsWords } from '@/words/format';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { RehearsalStart } from './RehearsalStart';
import { RuleFields, type GroupChoice } from './RuleFields';
import styles from './run.module.css';
import { Templates } from './Templates';

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
  if (paper === null) return <EmptyState title="Paper not found" action={<a href="/">Go to the desk</a>} />;
  if (!paper || !groups) return null;
  const params = new URLSearchParams(window.location.search);
  const questionless = paper.questions.length === 0 && paper.title !== '';
  const onPaper = questionless && params.has('on-paper');
  if (!readyToSit(paper) && !onPaper)
    return (
      <EmptyState
        title={`${paper.title || 'This paper'} isn’t ready yet`}
        action={<a href={`/papers/${paperId}`}>Back to writing</a>}
      >
        The margin lists what to fix.
        {questionless && (
          <>
            {' '}
            Its questions stand on a paper printed elsewhere?{' '}
            <a href={`/papers/${paperId}/give?on-paper`}>Give it out and draw them there</a>.
          </>
        )}
      </EmptyState>
    );
  if (groups.length === 0 && !params.has('guests'))
    return (
      <EmptyState title="You have no groups yet" action={<a href="/groups?new=1">Create a group</a>}>
        Create a group and add its students, then come back here.
      </EmptyState>
    );
  return <GiveForm paper={paper} groups={groups} then={onPaper ? 'on-paper' : 'run'} />;
}

interface GiveFormProps {
  paper: Paper;
  groups: GroupChoice[];
  /** The page of the sitting that comes next. */
  then: 'run' | 'on-paper';
}

function GiveForm({ paper, groups, then }: GiveFormProps) {
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
    if (made) window.location.assign(`/sittings/${made.result}/${then}`);
  };
  const chosen = groups.filter(({ group }) => settings.groupIds.includes(group.id));
  // Who is in two of the groups gets it once.
  const students =
    useLiveQuery(async () => (await studentsIn(settings.groupIds)).length, [settings.groupIds.join()]) ?? 0;
  return (
    <TwoColumns
      marginLabel="Summary of the settings"
      margin={
        <>
          <MarginBlock title="What students will get">
            <p>
              {settingsSentence(
                settings,
                chosen.map(({ group }) => group.name),
                words,
              )}
            </p>
            {settingsWarnings(settings).map((warning) => (
              <p key={warning.code} className={styles.warning} role="note">
                {settingsWarningWords(warning, words)}
              </p>
            ))}
            {tooShortFor(settings.timeLimitMs, givenCount(paper)) && (
              <p className={styles.fault} role="note">
                {counted(givenCount(paper), 'question')} in {duration(settings.timeLimitMs ?? 0)}: that is
                less than 20 seconds each.
              </p>
            )}
            {fault && (
              <p className={styles.fault} role="alert">
                {settingsFaultWords[fault]}
              </p>
            )}
            <Button variant="filled" disabled={fault !== null} onClick={() => void give()}>
              Give out
              {students > 0 ? ` to ${counted(students, 'student')}` : settings.guests ? ' to guests' : ''}
            </Button>
          </MarginBlock>
          <Templates settings={settings} take={setSettings} />
          <RehearsalStart paper={paper} settings={settings} />
        </>
      }
    >
      <h1 className={styles.heading}>Give out: {paper.title}</h1>
      <p className={styles.soft}>
        {counted(givenCount(paper), 'question')}, {pointsWords(paperPoints(paper))}.{' '}
        <a href={`/papers/${paper.id}`}>Back to writing</a>
      </p>
      <form className={styles.give} onSubmit={(event) => event.preventDefault()}>
        <TextInput
          label="Name of this sitting"
          description="Students see this name. If you give out a paper more than once, use different names."
          size="sm"
          maxLength={200}
          value={title}
          onChange={(event) => setTitle(event.currentTarget.value)}
        />
        <RuleFields settings={settings} groups={groups} change={change} />
      </form>
    </TwoColumns>
  );
}

/** What keeps a sitting from working, and what to do about it. */
