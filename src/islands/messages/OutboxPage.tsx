import { ActionIcon, Button } from '@mantine/core';
import { IconX } from '@/ui/icons';
import { useLiveQuery } from 'dexie-react-hooks';
import { fullName } from '@/core/model/names';
import { waitsInOutbox, type Message } from '@/core/model/sitting';
import { act, say } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { passOn } from '@/store/mail';
import { outboxRows, removeMessage } from '@/store/outbox';
import { isoNow, useNow } from '@/ui/clock';
import { EmptyState } from '@/ui/EmptyState';
import { saveFile } from '@/ui/saveFile';
import { VirtualList } from './VirtualList';
import { counted, dayAndTime } from '@/words/format';
import { mailWords } from '@/words/mail';
import { useMailServer } from './useMailServer';
import styles from './messages.module.css';

/** Messages to students, each with where it is: sent by a mail server, saved as files, or passed on one by one. */
export function OutboxPage() {
  return (
    <DeskReady>
      <Outbox />
    </DeskReady>
  );
}

type Row = Awaited<ReturnType<typeof outboxRows>>[number];

const canGoAgain = ({ state }: Message) =>
  state !== undefined && ['failed', 'bounced', 'unsure'].includes(state.is);

function Outbox() {
  const rows = useLiveQuery(outboxRows);
  const mail = useMailServer();
  if (!rows) return null;
  if (rows.length === 0)
    return (
      <EmptyState title="The outbox is empty" action={<a href="/">Go to the desk</a>}>
        Messages you write in Run or Hand back wait here until they are sent.
      </EmptyState>
    );
  const messages = rows.map(({ message }) => message);
  const waiting = messages.filter(waitsInOutbox);
  const addressed = waiting.filter(({ email }) => email !== '');
  const again = messages.filter(canGoAgain);
  const sendAll = async () => {
    const sent = await act(mail.send(addressed.map(({ id }) => id)));
    if (sent !== null) say(`${counted(sent, 'message')} given to the mail server`);
  };
  const saveAll = async () => {
    // What makes them is fetched now: few pages of the desk save messages.
    const files = await act(import('./messagesZip'));
    if (!files) return;
    saveFile('messages.zip', 'application/zip', files.messagesZip(waiting));
    await act(
      passOn(
        waiting.map(({ id }) => id),
        isoNow(),
      ),
    );
  };
  return (
    <>
      <h1 className={styles.heading}>Outbox</h1>
      <div className={styles.row}>
        {mail.from !== null && (
          <Button variant="filled" disabled={addressed.length === 0} onClick={() => void sendAll()}>
            Send {counted(addressed.length, 'message')}
          </Button>
        )}
        <Button disabled={waiting.length === 0} onClick={() => void saveAll()}>
          Save {counted(waiting.length, 'message')} as files
        </Button>
        {mail.from !== null && again.length > 0 && (
          <Button onClick={() => void act(mail.again(again.map(({ id }) => id)))}>
            Send {counted(again.length, 'message')} again
          </Button>
        )}
        <span className={styles.soft} role="status">
          {counted(waiting.length, 'message')} waiting
          {waiting.length > addressed.length && `, ${waiting.length - addressed.length} without an address`}
          {mail.from === null && '. No mail server is set up: save them as files, or open them one by one.'}
        </span>
      </div>
      <VirtualList rows={rows} label="Messages">
        {(row) => <OneMessage key={row.message.id} row={row} />}
      </VirtualList>
    </>
  );
}

function OneMessage({ row: { message, student } }: { row: Row }) {
  const now = useNow(60_000);
  const { email, subject, text, state } = message;
  const name = student ? fullName(student) : 'a deleted student';
  const own = `mailto:${encodeURIComponent(email)}?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(text)}`;
  return (
    <>
      <div className={styles.row}>
        <strong>{subject}</strong>
        <span className={styles.soft}>
          to {name}
          {email ? ` <${email}>` : ', no email address'} · {dayAndTime(message.at, now)}
          {state &&
            ` · ${mailWords[state.is]} ${dayAndTime(state.at, now)}${state.words ? `: ${state.words}` : ''}`}
        </span>
        {email && !state && (
          <a href={own} onClick={() => void act(passOn([message.id], isoNow()))}>
            Open in my mail program
          </a>
        )}
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label={`Delete the message to ${name}`}
          onClick={() => void act(removeMessage(message.id, isoNow()))}
        >
          <IconX size={16} />
        </ActionIcon>
      </div>
      <p className="keepLines">{text}</p>
    </>
  );
}
