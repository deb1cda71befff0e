import { z } from 'zod';
import { Id, Instant, Line, Text } from '../basics/common';

/** What the desk and the mail side of the server say to each other. */

/** A message to be sent. */
export const MailJob = z.object({ id: Id, to: z.email().max(320), subject: Line, text: Text });
export type MailJob = z.infer<typeof MailJob>;

/** So many go to the server at once. */
export const mostJobs = 1_000;
export const MailJobs = z.object({ jobs: MailJob.array().max(mostJobs) });

/**
 * Where a message stands: it waits its turn, is on its way, went, could not be sent for now and was given up, was refused for good, or
 * nobody knows whether it went, for the server ended in between.
 */
export const MailStanding = z.enum(['queued', 'sending', 'sent', 'failed', 'bounced', 'unsure']);
export type MailStanding = z.infer<typeof MailStanding>;

export const MailState = z.object({ id: Id, is: MailStanding, at: Instant, words: z.string().max(500) });
export type MailState = z.infer<typeof MailState>;

/** What the server can do with mail, and how messages stand. */
export const MailNews = z.object({
  /** Whether a mail server is set up; its sender. */
  from: Line.nullable(),
  perHour: z.number().int(),
  perDay: z.number().int(),
  rev: z.number().int().min(0),
  states: MailState.array(),
});
export type MailNews = z.infer<typeof MailNews>;
