import type { Message } from '../../model/sitting';
import type { Seat } from '../../seats/seats';
import { personColumns, type SittingTables } from './grades';
import { tableOf, type ExportTable, type Written } from './exportTable';

/** States as the file says them. */
const stateNames: Record<NonNullable<Message['state']>['is'], string> = {
  queued: 'waits at the mail server',
  sending: 'being sent',
  sent: 'sent',
  failed: 'not sent',
  bounced: 'refused',
  unsure: 'may have been sent',
  passedOn: 'passed on',
};

/** A message, or one look at a result. */
interface Contact {
  student: Seat['student'];
  what: 'message' | 'opened';
  at: string;
  subject: string;
  address: string;
  state: string;
}

/** Every message of a sitting, and every time a result was opened, in order. */
export function messagesTable(about: SittingTables, messages: readonly Message[]): ExportTable {
  const rows = about.seats.flatMap(({ student, openedAt, openedOnDevice }): Contact[] => [
    ...messages
      .filter(({ studentId }) => studentId === student.id)
      .map(({ at, subject, email, state }) => ({
        ...{ student, what: 'message' as const, at, subject, address: email },
        state: state ? [stateNames[state.is], state.words].filter(Boolean).join(': ') : 'in the outbox',
      })),
    ...openedAt.map((at) => ({
      ...{ student, what: 'opened' as const, at, subject: '', address: '' },
      state: openedOnDevice.includes(at) ? 'own device' : 'in the desk’s browser',
    })),
  ]);
  const columns: Written<Contact>[] = [
    ...personColumns(about.seats, about.groups),
    { id: 'what', title: 'what', cell: ({ what }) => (what === 'message' ? 'message' : 'result opened') },
    { id: 'at', title: 'when', cell: ({ at }) => at },
    { id: 'subject', title: 'subject', cell: ({ subject }) => subject || null },
    { id: 'state', title: 'state', cell: ({ state }) => state || null },
    { id: 'address', title: 'sent to', cell: ({ address }) => address || null },
  ];
  return tableOf(
    columns,
    rows.sort((a, b) => a.at.localeCompare(b.at)),
  );
}
