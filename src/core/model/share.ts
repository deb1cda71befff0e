import { z } from 'zod';
import { PackedAsset } from '../basics/asset';
import { Id, Instant, Line } from '../basics/common';
import { HandMark } from './mark';
import { PaperVersion } from './paper';
import { Answers } from './sitting';

/** The answers to one question that somebody is to mark. */
export const AnswersGiven = z.object({ questionId: Id, attemptIds: Id.array().max(100_000) });
export type AnswersGiven = z.infer<typeof AnswersGiven>;

/** How a share goes to its marker: as a file, over the classroom server, or it stays on this desk. */
export const ShareWay = z.enum(['file', 'server', 'here']);
export type ShareWay = z.infer<typeof ShareWay>;

/** Answers given to another marker, or once more to oneself; its id is the marker's. */
export const MarkingShare = z.object({
  id: Id,
  sittingId: Id,
  /** The marker's name, as the teacher typed it. */
  marker: Line.min(1),
  /** `again`: a blind sample of what was marked, given to oneself. */
  purpose: z.enum(['marker', 'again']),
  answers: AnswersGiven.array().min(1).max(500),
  way: ShareWay,
  /** Files that go out as others, without what a camera wrote beside them: their ids here by the ids they have there. */
  renamed: z.record(Id, Id).optional(),
  /** What opens it. */
  code: Line,
  /** What its marks are sealed with on their way back. */
  secret: Line,
  givenAt: Instant,
  /** Since when it lies on the server, where it goes that way; absent: it does not yet. */
  onServerAt: Instant.optional(),
  /** When marks last came back. */
  heardAt: Instant.optional(),
  /** From then on no more marks are taken. */
  pulledBackAt: Instant.optional(),
});
export type MarkingShare = z.infer<typeof MarkingShare>;

/** A share that a colleague gave to this desk: a sitting was made of it, with its id. */
export const TakenShare = MarkingShare.pick({
  marker: true,
  purpose: true,
  way: true,
  code: true,
  secret: true,
}).extend({
  sittingId: Id,
  takenAt: Instant,
  /** What questions are called on the paper that the share was made of. */
  numbers: z.record(Id, Line).optional(),
  /** When its marks were last given back. */
  sentAt: Instant.optional(),
  /** When it was told that it has been pulled back. */
  pulledBackAt: Instant.optional(),
});
export type TakenShare = z.infer<typeof TakenShare>;

/** What a share holds on its way to the marker: answers without names, the paper with its key and schemes. */
export const ShareContent = z.object({
  shareId: Id,
  /** Of the sitting. */
  title: Line,
  marker: Line,
  purpose: MarkingShare.shape.purpose,
  way: ShareWay,
  secret: Line,
  givenAt: Instant,
  paper: PaperVersion,
  /** What its questions are called on the whole paper, by id. */
  numbers: z.record(Id, Line).optional(),
  /** The n-th is known by its number alone. */
  scripts: z
    .object({ questionIds: Id.array().max(500), answers: Answers })
    .array()
    .max(100_000),
  assets: PackedAsset.array(),
});
export type ShareContent = z.infer<typeof ShareContent>;

/** Marks on their way back. Their attempts are the scripts of the share. */
export const MarksBack = z.object({ shareId: Id, savedAt: Instant, marks: HandMark.array().max(1_000_000) });
export type MarksBack = z.infer<typeof MarksBack>;
