import { Button, Checkbox, NativeSelect, NumberInput, Radio, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { Question } from '@/core/kinds';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { answersToGive, countGiven, dealt, keptOnPaper } from '@/core/marking/shares/deal';
import type { AnswersGiven } from '@/core/model/share';
import { act, say } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { useConnection } from '@/desk/useConnection';
import { giveShares } from '@/store/shares';
import { isoNow } from '@/ui/clock';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import { saveShare, sendShare } from './shareOut';
import styles from './markers.module.css';

interface ShareFormProps {
  sitting: SittingData;
  questions: readonly Question[];
  /** These answers and no others: those on which two markers differ. Null: they are chosen here. */
  preset: AnswersGiven[] | null;
  setPreset: (answers: AnswersGiven[] | null) => void;
}

export const markersFieldId = 'markers-of-a-share';

/** Gives answers to one or several markers: which, how they are dealt, and which way they go. */
export function ShareForm({ sitting, questions, preset, setPreset }: ShareFormProps) {
  const { paired } = useConnection();
  const [names, setNames] = useState('');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [group, setGroup] = useState('');
  const [which, setWhich] = useState<'all' | 'waiting'>('all');
  const [each, setEach] = useState<'all' | 'part'>('part');
  const [common, setCommon] = useState(0);
  const [most, setMost] = useState<number | null>(null);
  const [way, setWay] = useState<'file' | 'server'>('file');
  const markers = names
    .split(/[,;\n]/)
    .map((name) => name.trim())
    .filter(Boolean);
  const answers = useMemo(
    () =>
      preset ??
      answersToGive(
        questions.filter(({ id }) => !left.has(id)),
        sitting.seats,
        { groupId: group || null, onlyWaiting: which === 'waiting' },
      ),
    [sitting.seats, questions, left, group, which, preset],
  );
  const hands = dealt(answers, {
    markers: Math.max(1, markers.length),
    each,
    common: each === 'part' ? common : 0,
    ...(most !== null && !preset && { most }),
    seed: sitting.sitting.id,
  });
  const sizes = hands.map(countGiven);
  const onPaper = useMemo(
    () =>
      keptOnPaper(
        questions.filter(({ id }) => !left.has(id)),
        sitting.seats,
      ),
    [questions, left, sitting.seats],
  );
  const total = countGiven(answers);
  const doubled = new Set(markers).size < markers.length;

  const give = async () => {
    const wishes = markers.map((marker, at) => ({
      ...{ marker, purpose: 'marker' as const, way },
      answers: hands[at] ?? [],
    }));
    const made = await act(giveShares(sitting.sitting.id, wishes, isoNow()));
    if (!made) return;
    for (const { id, marker } of made.result) {
      const going = way === 'server' ? sendShare(id) : saveShare(id, marker, sitting.sitting.title);
      // Why it did not go stands in the line below; the table has a button to try again.
      if ((await act(going.then(() => true))) === null) return;
    }
    const [first] = made.result;
    say(
      made.result.length === 1 && first
        ? `Share of ${first.marker} is ready. Tell ${first.marker} the code ${first.code}, not in the same message as the file`
        : `${made.result.length} shares are ready. Each marker needs the code that stands in the table`,
    );
    setNames('');
    setPreset(null);
  };

  return (
    <MarginBlock title="Give answers to a colleague">
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          void give();
        }}
      >
        <TextInput
          id={markersFieldId}
          size="sm"
          label="Markers"
          description="Several names divided by commas"
          value={names}
          required
          error={doubled ? 'Two markers have the same name' : null}
          onChange={(event) => setNames(event.currentTarget.value)}
        />
        {preset ? (
          <p>
            The {counted(total, 'answer')} on which two markers differ.{' '}
            <Button size="compact-sm" onClick={() => setPreset(null)}>
              Choose others
            </Button>
          </p>
        ) : (
          <WhichAnswers {...{ sitting, questions, left, setLeft, group, setGroup, which, setWhich }} />
        )}
        {!preset && onPaper > 0 && (
          <p>
            {counted(onPaper, 'answer')} on paper {onPaper === 1 ? 'stays' : 'stay'} here: the pages have
            names on them.
          </p>
        )}
        {!preset && (
          <ScriptCount
            label="Scripts at most"
            placeholder="all"
            least={1}
            value={most}
            change={(count) => setMost(count !== null && count > 0 ? count : null)}
          />
        )}
        {markers.length > 1 && <HowDealt {...{ each, setEach, common, setCommon }} />}
        <Radio.Group
          label="How it goes"
          size="sm"
          value={way}
          onChange={(value) => setWay(value === 'server' ? 'server' : 'file')}
        >
          <div className={styles.ways}>
            <Radio size="sm" value="file" label="As a sealed file" />
            <Radio
              size="sm"
              value="server"
              disabled={paired !== true}
              label="Over the classroom server"
              description={
                paired === true ? undefined : 'Pair this desk with a server first, under Run, own devices'
              }
            />
          </div>
        </Radio.Group>
        <Button type="submit" size="sm" disabled={markers.length === 0 || sizes.includes(0) || doubled}>
          {giveWords(total, markers.length, sizes)}
        </Button>
      </form>
    </MarginBlock>
  );
}

interface ScriptCountProps {
  label: string;
  description?: string;
  placeholder?: string;
  least: number;
  value: number | null;
  /** Null: nothing stands in the field. */
  change: (count: number | null) => void;
}

/** A number of scripts, typed. */
function ScriptCount({ least, value, change, ...words }: ScriptCountProps) {
  return (
    <NumberInput
      {...words}
      size="sm"
      min={least}
      max={100_000}
      allowDecimal={false}
      allowNegative={false}
      value={value ?? ''}
      onChange={(typed) => change(typeof typed === 'number' ? typed : null)}
    />
  );
}

interface HowDealtProps {
  each: 'all' | 'part';
  setEach: (each: 'all' | 'part') => void;
  common: number;
  setCommon: (scripts: number) => void;
}

/** Whether several markers get all of it or a part, and how much of it all of them get. */
function HowDealt({ each, setEach, common, setCommon }: HowDealtProps) {
  return (
    <>
      <Radio.Group
        label="Each marker gets"
        size="sm"
        value={each}
        onChange={(value) => setEach(value === 'all' ? 'all' : 'part')}
      >
        <div className={styles.checks}>
          <Radio size="sm" value="part" label="a part" />
          <Radio size="sm" value="all" label="all of them" />
        </div>
      </Radio.Group>
      {each === 'part' && (
        <ScriptCount
          label="Scripts that all of them get"
          description="To see how far they agree"
          least={0}
          value={common}
          change={(count) => setCommon(count ?? 0)}
        />
      )}
    </>
  );
}

interface WhichProps {
  sitting: SittingData;
  questions: readonly Question[];
  /** The questions that are not given. */
  left: ReadonlySet<string>;
  setLeft: (left: ReadonlySet<string>) => void;
  group: string;
  setGroup: (id: string) => void;
  which: 'all' | 'waiting';
  setWhich: (which: 'all' | 'waiting') => void;
}

/** Which answers are given: of which questions and group, and whether marked ones too. */
function WhichAnswers({ sitting, questions, left, setLeft, group, setGroup, which, setWhich }: WhichProps) {
  const numbers = numbersOf(sitting.questions);
  return (
    <>
      <Checkbox.Group
        label="Questions"
        size="sm"
        value={questions.filter(({ id }) => !left.has(id)).map(({ id }) => id)}
        onChange={(chosen) =>
          setLeft(new Set(questions.flatMap(({ id }) => (chosen.includes(id) ? [] : [id]))))
        }
      >
        <div className={styles.checks}>
          {questions.map(({ id }) => (
            <Checkbox key={id} size="sm" value={id} label={numbers.get(id) ?? ''} />
          ))}
        </div>
      </Checkbox.Group>
      {sitting.groups.length > 1 && (
        <NativeSelect
          size="sm"
          label="Of"
          value={group}
          data={[
            { value: '', label: 'all groups' },
            ...sitting.groups.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(event) => setGroup(event.currentTarget.value)}
        />
      )}
      <NativeSelect
        size="sm"
        label="Answers"
        value={which}
        data={[
          { value: 'all', label: 'all, marked ones too' },
          { value: 'waiting', label: 'only those that wait' },
        ]}
        onChange={(event) => setWhich(event.currentTarget.value === 'waiting' ? 'waiting' : 'all')}
      />
    </>
  );
}

/** "Give 92 answers", "Give 3 markers 30 to 31 answers each": what the button does. */
function giveWords(total: number, markers: number, sizes: readonly number[]): string {
  if (total === 0) return 'No such answers';
  if (sizes.includes(0)) return 'More markers than scripts';
  if (markers <= 1) return `Give ${counted(sizes[0] ?? 0, 'answer')}`;
  const [least, most] = [Math.min(...sizes), Math.max(...sizes)];
  return `Give ${markers} markers ${least === most ? counted(most, 'answer') : `${least} to ${most} answers`} each`;
}
