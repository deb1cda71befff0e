import { Button, TextInput } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { useState } from 'react';
import type { Seat } from '@/core/seats/seats';
import { sendMessages } from '@/store/outbox';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { counted, dayAndTime } from '@/words/format';
import styles from './run.module.css';

interface NudgeFormProps {
  seats: readonly Seat[];
  sitting: SittingData;
  done: () => void;
}

/** A word to those who have not started or went quiet; it goes to the outbox. */
export function NudgeForm({ seats, sitting, done }: NudgeFormProps) {
  const { sitting: record, now } = sitting;
  const until = record.closesAt ? ` It closes ${dayAndTime(record.closesAt, now)}.` : '';
  const [subject, setSubject] = useState(`Reminder: ${record.title}`);
  const [text, setText] = useState(
    `Dear {given name},\n\nyou can still sit “${record.title}”.${until} Join with your code {join code}.`,
  );
  const without = seats.filter((seat) => seat.student.email === '').length;
  const send = async () => {
    const messages = seats.map(({ student }) => {
      const filled = (words: string) =>
        words
          .replaceAll('{given name}', student.givenName || student.familyName)
          .replaceAll('{join code}', student.joinCode);
      return { studentId: student.id, subject: filled(subject), text: filled(text) };
    });
    if (await act(sendMessages(record.id, messages, isoNow()))) done();
  };
  return (
    <form
      className={styles.act}
      aria-label="Send a reminder"
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <p>
        {counted(seats.length, 'message')} to the <a href="/outbox">outbox</a>.
        {without > 0 && ` ${without} of them without an email address.`}
      </p>
      <TextInput
        label="Subject"
        size="xs"
        maxLength={200}
        value={subject}
        onChange={(event) => setSubject(event.currentTarget.value)}
      />
      <GrowingTextarea
        label="Message"
        description="{given name} and {join code} are filled in for each."
        size="xs"
        minRows={4}
        maxLength={4000}
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <div className={styles.row}>
        <Button type="submit" variant="filled" disabled={!subject.trim() || !text.trim()}>
          Put in the outbox
        </Button>
        <Button onClick={done}>Cancel</Button>
      </div>
    </form>
  );
}
