import { z } from 'zod';
import { Id, Instant, Line } from '../basics/common';
import { GradeScale } from './gradeScale';

const columnFields = {
  id: Id,
  /** Null: it counts by itself, beside the categories. */
  categoryId: Id.nullable(),
  /** Against the others it stands with. */
  weight: z.number().min(0).max(1000),
  /** It only adds. */
  bonus: z.boolean(),
  /** It stands there and does not count. */
  dropped: z.boolean(),
  /** Students for whom it does not count. */
  excused: Id.array().max(20_000),
};

/** A column of a mark book: a sitting, or results typed by hand or brought in. */
export const MarkBookColumn = z.discriminatedUnion('kind', [
  z.object({ ...columnFields, kind: z.literal('sitting'), sittingId: Id }),
  z.object({
    ...columnFields,
    kind: z.literal('typed'),
    title: Line,
    max: z.number().min(0).max(100_000),
    /** Points by student. */
    values: z.record(Id, z.number().min(0).max(100_000)),
  }),
]);
export type MarkBookColumn = z.infer<typeof MarkBookColumn>;

/** Columns that count together. */
export const MarkBookCategory = z.object({
  id: Id,
  name: Line,
  weight: z.number().min(0).max(1000),
  /** Only so many of the best count; null: all. */
  best: z.number().int().min(1).max(100).nullable(),
});
export type MarkBookCategory = z.infer<typeof MarkBookCategory>;

/** All sittings of a course side by side for its groups. */
export const MarkBook = z.object({
  id: Id,
  title: Line.min(1),
  groupIds: Id.array().max(200),
  columns: MarkBookColumn.array().max(200),
  categories: MarkBookCategory.array().max(40),
  /** What was not sat counts as nothing, or not at all. */
  missing: z.enum(['nothing', 'leftOut']),
  /** To how many decimals of a percent the total is rounded: once, at the end. */
  decimals: z.number().int().min(0).max(2),
  scale: GradeScale.nullable(),
  createdAt: Instant,
  changedAt: Instant,
});
export type MarkBook = z.infer<typeof MarkBook>;
