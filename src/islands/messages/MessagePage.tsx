import { Button, Select, TextInput } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { fieldsOf, filledIn, messageFields, tellingFields, unknownFields } from '@/core/handback/messageText';
import { inView, isGuest, registerName } from '@/core/model/names';
import { hasResult } from '@/core/model/release';
import { isIn, type Seat } from '@/core/seats/seats';
import { act, say } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { keepMessageTemplate, removeMessageTemplate } from '@/store/mail';
import { sendMessages } from '@/store/outbox';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { GroupSelect } from '@/ui/GroupSelect';
import { NameForm } from '@/ui/NameForm';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import { todoWords, usualWording } from '@/words/mail';
import { useMailServer } from './useMailServer';
import styles from './messages.module.css';

/** A message to students of a sitting, each with their own words filled in. */
export function MessagePage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="handBack">
      {(sitting) => <Compose sitting={sitting} />}
    </SittingPage>
  );
}

/** To whom. */
const audiences = {
  notOpened: {
    label: 'who have it and have not opened it',
    has: (seat: Seat) => hasResult(seat.release) && seat.openedAt.length === 0,
  },
  have: { label: 'who have their result', has: (seat: Seat) => hasResult(seat.release) },
  in: { label: 'who handed in', has: isIn },
  all: { label: 'everyone', has: () => true },
} satisfies Record<string, { label: string; has: (seat: Seat) => boolean }>;
type Audience = keyof typeof audiences;

function Compose({ sitting }: { sitting: SittingData }) {
  const { sitting: record, seats } = sitting;
  const [audience, setAudience] = useState<Audience>(
    seats.some(({ release }) => hasResult(release)) ? 'notOpened' : 'all',
  );
  const [group, setGroup] = useState('');
  const [subject, setSubject] = useState(usualWording.subject);
  const [text, setText] = useState(usualWording.text);
  const scale = useLiveQuery(() => desk.grades.get(record.id), [record.id]) ?? null;
  const mail = useMailServer();
  const to = useMemo(
    () => seats.filter((seat) => inView(seat.student, group) && audiences[audience].has(seat)),
    [seats, group, audience],
  );
  const about = { paper: record.title, origin: mail.origin, scale, todo: todoWords };
  const messages = to.map((seat) => {
    const fields = fieldsOf(seat, about);
    return { studentId: seat.student.id, subject: filledIn(subject, fields), text: filledIn(text, fields) };
  });
  const without = to.filter(({ student }) => student.email === '').length;
  const put = async (send: boolean) => {
    const done = await act(sendMessages(record.id, messages, isoNow()));
    if (!done) return;
    const ids = done.result;
    const sent = send ? await act(mail.send(ids)) : null;
    say(
      sent === null
        ? `${counted(messages.length, 'message')} in the outbox`
        : `${counted(sent, 'message')} given to the mail server${without > 0 ? `; ${without} without an address stay in the outbox` : ''}`,
    );
  };
  const empty = to.length === 0 || !subject.trim() || !text.trim();
  return (
    <TwoColumns
      marginLabel="To whom"
      margin={
        <>
          <MarginBlock title="To">
            <div className={styles.fields}>
              <Select
                aria-label="To whom"
                size="sm"
                allowDeselect={false}
                data={Object.entries(audiences).map(([value, { label }]) => ({ value, label }))}
                value={audience}
                onChange={(value) => value && setAudience(value as Audience)}
              />
              <GroupSelect
                groups={sitting.groups}
                guests={seats.some(({ student }) => isGuest(student))}
                value={group}
                choose={setGroup}
              />
              <p role="status">
                {counted(to.length, 'student')}
                {without > 0 && `, ${without} without an email address: ${namesOf(to)}`}
              </p>
              {mail.from !== null && (
                <Button
                  variant="filled"
                  disabled={empty || to.length === without}
                  onClick={() => void put(true)}
                >
                  Send {counted(to.length - without, 'message')}
                </Button>
              )}
              <Button
                {...(mail.from === null && { variant: 'filled' as const })}
                disabled={empty}
                onClick={() => void put(false)}
              >
                Put {counted(to.length, 'message')} in the outbox
              </Button>
              <p className={styles.soft}>
                {mail.from === null
                  ? 'No mail server is set up here: from the outbox they can be saved as files, or opened in your own mail program.'
                  : `Sent as ${mail.from}, at most ${mail.perHour} an hour and ${mail.perDay} a day; the rest follows by itself.`}{' '}
                {mail.reached
                  ? ''
                  : 'Links lead to this computer until the desk is paired with a server that students reach. '}
                <a href="/outbox">Outbox</a>
              </p>
            </div>
          </MarginBlock>
          <Wordings
            subject={subject}
            text={text}
            use={(template) => {
              setSubject(template.subject);
              setText(template.text);
            }}
          />
        </>
      }
    >
      <div className={styles.fields}>
        <TextInput
          label="Subject"
          maxLength={200}
          value={subject}
          onChange={(event) => setSubject(event.currentTarget.value)}
        />
        <GrowingTextarea
          label="Message"
          description={`Filled in for each student: ${messageFields.map((name) => `{${name}}`).join(' ')}`}
          minRows={6}
          maxLength={8_000}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <FieldsNoticed words={`${subject} ${text}`} />
        <Preview to={to} messages={messages} />
      </div>
    </TwoColumns>
  );
}

/** Fields that are not filled in, and fields that let out what a plan may hold back. */
function FieldsNoticed({ words }: { words: string }) {
  const slips = unknownFields(words);
  const tells = tellingFields(words);
  return (
    <>
      {slips.length > 0 && (
        <p role="alert" className={styles.warning}>
          {slips.map((name) => `{${name}}`).join(', ')} {slips.length === 1 ? 'is' : 'are'} not filled in:
          there is no such field.
        </p>
      )}
      {tells.length > 0 && (
        <p className={styles.warning}>
          The message itself tells {tells.map((name) => `the ${name}`).join(' and ')}: whoever reads the mail
          sees it, whatever the plan lets out.
        </p>
      )}
    </>
  );
}

interface PreviewProps {
  to: readonly Seat[];
  /** One for each of them, in their order. */
  messages: readonly { subject: string; text: string }[];
}

/** What each of them gets, one after another. */
function Preview({ to, messages }: PreviewProps) {
  const [at, setAt] = useState(0);
  const place = Math.min(at, Math.max(0, to.length - 1));
  const [shown, message] = [to[place], messages[place]];
  if (!shown || !message) return null;
  return (
    <section aria-label="Preview" className={styles.preview}>
      <div className={styles.row}>
        <strong>
          To {registerName(shown.student)} {shown.student.email ? `<${shown.student.email}>` : '(no address)'}
        </strong>
        <Button size="compact-xs" disabled={place === 0} onClick={() => setAt(place - 1)}>
          Previous
        </Button>
        <Button size="compact-xs" disabled={place >= to.length - 1} onClick={() => setAt(place + 1)}>
          Next
        </Button>
        <span className={styles.soft}>
          {place + 1} of {to.length}
        </span>
      </div>
      <p>
        <strong>{message.subject}</strong>
      </p>
      <p className="keepLines">{message.text}</p>
    </section>
  );
}

/** "Aziz, Omar, Adler, Elif and 3 more" */
function namesOf(to: readonly Seat[]): string {
  const names = to.flatMap(({ student }) => (student.email === '' ? [registerName(student)] : []));
  return `${names.slice(0, 3).join('; ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;
}

interface WordingsProps {
  subject: string;
  text: string;
  use: (wording: { subject: string; text: string }) => void;
}

/** Wordings that were saved. */
function Wordings({ subject, text, use }: WordingsProps) {
  const kept = useLiveQuery(() => desk.messageTemplates.toCollection().sortBy('name')) ?? [];
  return (
    <MarginBlock title="Saved wordings">
      <div className={styles.fields}>
        {kept.map((template) => (
          <div key={template.id} className={styles.row}>
            <Button size="compact-sm" onClick={() => use(template)}>
              Use “{template.name}”
            </Button>
            <Button
              size="compact-xs"
              aria-label={`Delete wording ${template.name}`}
              onClick={() => void act(removeMessageTemplate(template, isoNow()))}
            >
              Delete
            </Button>
          </div>
        ))}
        <NameForm
          label="Name for this wording"
          button="Save wording"
          done={(name) => act(keepMessageTemplate(name, subject, text, isoNow()))}
        />
      </div>
    </MarginBlock>
  );
}
