import type { Message } from '@/core/model/sitting';

/** Where a message is. */
export const mailWords: Record<NonNullable<Message['state']>['is'], string> = {
  queued: 'waits its turn at the mail server',
  sending: 'being sent',
  sent: 'sent',
  failed: 'not sent: given up after several tries',
  bounced: 'refused by the mail server',
  unsure: 'may have been sent',
  passedOn: 'passed on',
};

/** What students are to do, for the field of that name. */
export const todoWords = {
  open: 'Please open it and look at what was lost.',
  see: 'It isn’t back yet; you can look at your papers there.',
  nothing: 'You have opened it already.',
};

/** A wording to begin with. */
export const usualWording = {
  subject: '{paper} is back',
  text: 'Dear {given name},\n\n“{paper}” is handed back. You can see it here:\n{link}\n\n{what to do}\n',
};
