import { ActionIcon } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useLiveQuery } from 'dexie-react-hooks';
import { fullName } from '@/core/model/names';
import { outboxRows, removeMessage } from '@/store/outbox';
import { isoNow, useNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { dayAndTime } from '@/words/format';
import styles from './OutboxPage.module.css';

/** Messages to students. There is no mail server yet: they lie here, to be passed on. */
export function OutboxPage() {
  return (
    <DeskReady>
      <Outbox />
    </DeskReady>
  );
}

function Outbox() {
  const now = useNow(60_000);
  const rows = useLiveQuery(outboxRows);
  if (!rows) return null;
  if (rows.length === 0)
    return (
      <EmptyState title="The outbox is empty" action={<a href="/">Go to the desk</a>}>
        Reminders you write in Run wait here until they are sent.
      </EmptyState>
    );
  return (
    <>
      <h1 className={styles.heading}>Outbox</h1>
      <p className={styles.soft}>Messages lie here; no mail server is set up.</p>
      <ul className={styles.messages}>
        {rows.map(({ message, student }) => (
          <li key={message.id}>
            <div className={styles.head}>
              <strong>{message.subject}</strong>
              <span className={styles.soft}>
                to {student ? fullName(student) : 'a deleted student'}
                {message.email ? ` <${message.email}>` : ', no email address'} · {dayAndTime(message.at, now)}
              </span>
              <ActionIcon
                variant="subtle"
                color="gray"
                aria-label={`Delete the message to ${student ? fullName(student) : 'nobody'}`}
                onClick={() => void act(removeMessage(message.id, isoNow()))}
              >
                <IconX size={16} />
              </ActionIcon>
            </div>
            <p className="keepLines">{message.text}</p>
          </li>
        ))}
      </ul>
    </>
  );
}
