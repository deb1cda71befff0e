import { z } from 'zod';
import { Question } from '../kinds';
import { Id, Instant } from '../basics/common';

/** A question kept for use in any paper. */
export const BankQuestion = z.object({ id: Id, question: Question, createdAt: Instant, changedAt: Instant });
export type BankQuestion = z.infer<typeof BankQuestion>;
