import { Button, Checkbox, NativeSelect, Progress, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { sheetFault } from '@/core/intake/sheetFault';
import type { Paper } from '@/core/model/paper';
import { act } from '@/desk/act';
import { thisTab } from '@/desk/undoLast';
import { groupRows } from '@/store/queries';
import type { Brought, NewPeople } from '@/store/bringAnswers';
import { keepColumns, type SheetChoices, type SheetInto } from '@/store/sheetAnswers';
import { isoNow } from '@/ui/clock';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import { sheetFaultWords } from '@/words/intake';
import type { SheetIntake, SheetSummary } from '@/workers/intake';
import styles from './intake.module.css';

interface IntakeMarginProps {
  papers: readonly Paper[];
  choices: SheetChoices;
  look: SheetSummary | null;
  busy: boolean;
  intake: SheetIntake | null;
  setInto: (into: SheetInto) => void;
  choose: (part: Partial<SheetChoices>) => void;
  done: (brought: Brought) => void;
}

/** Where the answers go, whose they are, and doing it. */
export function IntakeMargin(props: IntakeMarginProps) {
  const { papers, choices, look, setInto, choose } = props;
  const { into } = choices;
  return (
    <>
      {into.is !== 'sitting' && <IntoBlock papers={papers} into={into} setInto={setInto} />}
      {look && (look.severalRows > 0 || choices.several === 'last') && (
        <MarginBlock title="Students with several rows">
          <NativeSelect
            size="xs"
            aria-label="Several rows of one student"
            value={choices.several}
            data={[
              { value: 'attempts', label: 'are attempts, in order of time' },
              { value: 'last', label: 'only the last row counts' },
            ]}
            onChange={(event) =>
              choose({ several: event.currentTarget.value === 'last' ? 'last' : 'attempts' })
            }
          />
        </MarginBlock>
      )}
      {look?.datesEitherWay && (
        <MarginBlock title="Dates">
          <NativeSelect
            size="xs"
            aria-label="03/04 is"
            description="03/04 can be read either way."
            value={choices.dayOrder}
            data={[
              { value: 'dayFirst', label: '3 April' },
              { value: 'monthFirst', label: 'March 4' },
            ]}
            onChange={(event) =>
              choose({ dayOrder: event.currentTarget.value === 'monthFirst' ? 'monthFirst' : 'dayFirst' })
            }
          />
        </MarginBlock>
      )}
      {look && <PeopleBlock {...props} look={look} />}
    </>
  );
}

function IntoBlock({
  papers,
  into,
  setInto,
}: {
  papers: readonly Paper[];
  into: Exclude<SheetInto, { is: 'sitting' }>;
  setInto: (into: SheetInto) => void;
}) {
  return (
    <MarginBlock title="Answers to">
      <div className={styles.fields}>
        <NativeSelect
          size="xs"
          aria-label="Paper"
          value={into.is === 'paper' ? into.paperId : ''}
          data={[
            { value: '', label: 'a new paper made from the sheet' },
            ...papers.map(({ id, title }) => ({ value: id, label: title || 'Paper without a title' })),
          ]}
          onChange={(event) => {
            const paper = papers.find(({ id }) => id === event.currentTarget.value);
            setInto(
              paper
                ? { is: 'paper', paperId: paper.id, title: paper.title }
                : { is: 'newPaper', title: into.title },
            );
          }}
        />
        <TextInput
          size="xs"
          label="Name of the sitting"
          required
          maxLength={200}
          value={into.title}
          onChange={(event) => setInto({ ...into, title: event.currentTarget.value })}
        />
      </div>
    </MarginBlock>
  );
}

/** Whose the answers are, and the button that keeps them. */
function PeopleBlock({ choices, look, busy, intake, done }: IntakeMarginProps & { look: SheetSummary }) {
  const groups = useLiveQuery(groupRows);
  const [where, setWhere] = useState<string | null>(null);
  const [name, setName] = useState('');
  const [away, setAway] = useState<ReadonlySet<string>>(new Set());
  const { owners, counts } = look;
  const strangers = owners.new + owners.nameless;
  // The group that most of them are in; those without a name are nobody's.
  const place =
    where ?? (owners.nameless > 0 && owners.new === 0 ? 'guests' : (look.groups[0]?.groupId ?? 'new'));
  const people: NewPeople =
    strangers === 0 || place === 'guests'
      ? { are: 'guests' }
      : place === 'new'
        ? { are: 'students', groupName: name.trim() }
        : { are: 'students', groupId: place };
  const nameOf = (id: string) => groups?.find(({ group }) => group.id === id)?.group.name ?? '';
  const asked = look.groups.filter(({ groupId }) => nameOf(groupId));
  const groupIds = asked.map(({ groupId }) => groupId).filter((id) => !away.has(id));
  const said = peopleSentence(look);
  const fault = sheetFault({
    rows: counts.new + counts.changed,
    questions: look.questions.length,
    stops: look.stops.length,
    title: choices.into.is === 'sitting' ? null : choices.into.title,
    groupName: 'groupName' in people ? people.groupName : null,
  });
  return (
    <>
      <MarginBlock title="Students">
        {said && <p>{said}</p>}
        <div className={styles.fields}>
          {strangers > 0 && (
            <NativeSelect
              size="xs"
              label={`${counted(strangers, 'row')} of people who aren’t on the desk`}
              value={place}
              data={[
                { value: 'guests', label: 'guests of this sitting' },
                { value: 'new', label: 'students in a new group' },
                ...(groups ?? []).map(({ group }) => ({
                  value: group.id,
                  label: `students in ${group.name}`,
                })),
              ]}
              onChange={(event) => setWhere(event.currentTarget.value)}
            />
          )}
          {strangers > 0 && place === 'new' && (
            <TextInput
              size="xs"
              label="Name of the new group"
              maxLength={200}
              value={name}
              onChange={(event) => setName(event.currentTarget.value)}
            />
          )}
          {choices.into.is !== 'sitting' &&
            asked.map(({ groupId, students }) => (
              <Checkbox
                key={groupId}
                size="xs"
                label={`The sitting is for ${nameOf(groupId)} (${students} of them are here)`}
                checked={!away.has(groupId)}
                onChange={(event) => {
                  const next = new Set(away);
                  if (event.currentTarget.checked) next.delete(groupId);
                  else next.add(groupId);
                  setAway(next);
                }}
              />
            ))}
        </div>
      </MarginBlock>
      <Bring
        choices={choices}
        look={look}
        intake={intake}
        people={people}
        groupIds={choices.into.is === 'sitting' ? [] : groupIds}
        fault={fault && sheetFaultWords[fault]}
        busy={busy}
        done={done}
      />
    </>
  );
}

function peopleSentence({ owners, byName, counts }: SheetSummary): string {
  const parts = [
    owners.known > 0 ? `${counted(owners.known, 'row')} of students on the desk` : '',
    byName > 0 ? `${byName} of them told by the name alone` : '',
    owners.nameless > 0 ? `${owners.nameless} without a name, each called after its row` : '',
    counts.same > 0 ? `${counts.same} as they are already` : '',
    counts.older > 0 ? `${counts.older} left out: a later row counts` : '',
    counts.ambiguous > 0 ? `${counts.ambiguous} left out: two students have the name` : '',
  ].filter(Boolean);
  return parts.length > 0 ? `${parts.join('; ')}.` : '';
}

interface BringProps {
  choices: SheetChoices;
  look: SheetSummary;
  intake: SheetIntake | null;
  people: NewPeople;
  groupIds: readonly string[];
  fault: string | null;
  busy: boolean;
  done: (brought: Brought) => void;
}

function Bring({ choices, look, intake, people, groupIds, fault, busy, done }: BringProps) {
  const [under, setUnder] = useState<{ done: number; of: number; stop: () => void } | null>(null);
  const many = look.counts.new + look.counts.changed;
  const bring = async () => {
    if (!intake) return;
    const { result, stop } = intake.bring(choices, people, groupIds, isoNow(), thisTab(), (kept, of) =>
      setUnder({ done: kept, of, stop }),
    );
    setUnder({ done: 0, of: many, stop });
    const brought = await act(result);
    setUnder(null);
    if (!brought) return;
    if (choices.into.is !== 'newPaper') await keepColumns(brought.result.sittingId, choices.columns);
    done(brought.result);
  };
  if (under)
    return (
      <MarginBlock title="Importing">
        <Progress value={(under.done / Math.max(1, under.of)) * 100} aria-label="Rows imported" />
        <p role="status">
          {under.done} of {counted(under.of, 'row')}
        </p>
        <Button size="xs" onClick={under.stop}>
          Stop
        </Button>
      </MarginBlock>
    );
  return (
    <MarginBlock title="Import">
      {fault && <p role="note">{fault}</p>}
      <Button variant="filled" size="sm" disabled={fault !== null || busy} onClick={() => void bring()}>
        Import answers of {counted(many, 'row')}
      </Button>
    </MarginBlock>
  );
}
