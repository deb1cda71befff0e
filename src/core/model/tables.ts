import type { z } from 'zod';
import { Asset } from '../basics/asset';
import { AnswerPaper } from './answerPaper';
import { BankQuestion } from './bank';
import { Paper, PaperVersion } from './paper';
import { MarkBook } from './markBook';
import { HandMark } from './mark';
import { Group, Student } from './people';
import {
  Allowance,
  Attempt,
  ExceptionRequest,
  Message,
  MessageTemplate,
  Sitting,
  SittingTemplate,
} from './sitting';
import { BankComment } from './bankComment';
import { Pile } from './pile';
import { GradeTemplate, SittingGrades } from './gradeScale';
import { Repair } from './repair';
import { Scan } from './scan';
import { MarkingShare, TakenShare } from './share';
import { Opening, Release, ReleasePlan } from './release';

/** What a row can hang on: it goes when that goes, and with two students made one it goes over to the one that stays. */
export type Owner = 'sittings' | 'students' | 'attempts' | 'papers';

/** What there is to say of a table of the desk. */
export interface TableEntry {
  schema: z.ZodType<object>;
  /** The fields a row is known by. */
  key: readonly string[];
  /** The fields it is found by; `a+b`: by both; `*a`: by each of what stands in a. */
  indexes?: readonly string[];
  /** By what its rows hang on, the field that names it. Deleting and merging follow these. */
  owners?: Partial<Record<Owner, string>>;
  /** Fields that name a row of another table without which it makes no sense, and which stays while this is there. */
  needs?: Partial<Record<Owner, string>>;
  /** Whose progress a change of a row touches: of the sitting, or of the sittings of the paper, that this field names; or of all. */
  touches?: { sitting: string } | { paper: string } | 'every sitting';
  /** Whether files of before it existed are without it. */
  later?: boolean;
}

export const entry = <const E extends TableEntry>(is: E): E => is;

const ofSitting = { sitting: 'sittingId' } as const;
const ofStudentInSitting = { sittings: 'sittingId', students: 'studentId' } as const;

/**
 * The tables that commands change: each change is on record and can be undone. A new table is an entry here, and nothing
 * else.
 */
export const recordedTables = {
  students: entry({
    schema: Student,
    key: ['id'],
    indexes: ['joinCode', 'number', 'email', '*groupIds'],
    owners: { sittings: 'onlySittingId' },
    touches: 'every sitting',
  }),
  groups: entry({ schema: Group, key: ['id'], indexes: ['name'], touches: 'every sitting' }),
  papers: entry({
    schema: Paper,
    key: ['id'],
    indexes: ['changedAt'],
    touches: { paper: 'id' },
  }),
  paperVersions: entry({
    schema: PaperVersion,
    key: ['paperId', 'version'],
    indexes: ['paperId'],
    owners: { papers: 'paperId' },
    touches: { paper: 'paperId' },
  }),
  // A paper with sittings stays: they do not go with it.
  sittings: entry({
    schema: Sitting,
    key: ['id'],
    indexes: ['paperId', '*groupIds'],
    needs: { papers: 'paperId' },
    touches: { sitting: 'id' },
  }),
  allowances: entry({
    schema: Allowance,
    key: ['id'],
    indexes: ['sittingId', 'sittingId+studentId'],
    owners: ofStudentInSitting,
    touches: ofSitting,
  }),
  attempts: entry({
    schema: Attempt,
    key: ['id'],
    indexes: ['sittingId', 'studentId', 'sittingId+studentId'],
    owners: ofStudentInSitting,
    touches: ofSitting,
  }),
  // What was printed to be written on. It stays as it was, whatever becomes of the paper.
  prints: entry({
    schema: AnswerPaper,
    key: ['id'],
    indexes: ['sittingId'],
    owners: { sittings: 'sittingId' },
    later: true,
  }),
  scans: entry({
    schema: Scan,
    key: ['id'],
    indexes: ['sittingId'],
    owners: { sittings: 'sittingId' },
    later: true,
  }),
  marks: entry({
    schema: HandMark,
    key: ['attemptId', 'questionId', 'markerId'],
    indexes: ['attemptId', 'attemptId+questionId', 'sittingId', 'sittingId+questionId'],
    owners: { sittings: 'sittingId', attempts: 'attemptId' },
    touches: ofSitting,
  }),
  piles: entry({
    schema: Pile,
    key: ['id'],
    indexes: ['sittingId', 'sittingId+questionId'],
    owners: { sittings: 'sittingId' },
    later: true,
  }),
  shares: entry({
    schema: MarkingShare,
    key: ['id'],
    indexes: ['sittingId'],
    owners: { sittings: 'sittingId' },
    later: true,
  }),
  takenShares: entry({
    schema: TakenShare,
    key: ['sittingId'],
    owners: { sittings: 'sittingId' },
    later: true,
  }),
  repairs: entry({
    schema: Repair,
    key: ['id'],
    indexes: ['sittingId'],
    owners: { sittings: 'sittingId' },
    touches: ofSitting,
    later: true,
  }),
  releases: entry({
    schema: Release,
    key: ['sittingId', 'studentId'],
    indexes: ['sittingId', 'studentId'],
    owners: ofStudentInSitting,
    touches: ofSitting,
  }),
  releasePlans: entry({
    schema: ReleasePlan,
    key: ['sittingId'],
    owners: { sittings: 'sittingId' },
    touches: ofSitting,
    later: true,
  }),
  grades: entry({
    schema: SittingGrades,
    key: ['sittingId'],
    owners: { sittings: 'sittingId' },
    later: true,
  }),
  markBooks: entry({ schema: MarkBook, key: ['id'], later: true }),
  gradeTemplates: entry({ schema: GradeTemplate, key: ['id'], later: true }),
  /** When each student looked at what was let out: the student's own, and no part of the release. */
  openings: entry({
    schema: Opening,
    key: ['sittingId', 'studentId'],
    indexes: ['sittingId', 'studentId'],
    owners: ofStudentInSitting,
    touches: ofSitting,
    later: true,
  }),
  assets: entry({ schema: Asset, key: ['id'] }),
  bank: entry({ schema: BankQuestion, key: ['id'], later: true }),
  requests: entry({
    schema: ExceptionRequest,
    key: ['id'],
    indexes: ['sittingId', 'sittingId+studentId'],
    owners: ofStudentInSitting,
    touches: ofSitting,
    later: true,
  }),
  outbox: entry({
    schema: Message,
    key: ['id'],
    indexes: ['sittingId'],
    owners: ofStudentInSitting,
    later: true,
  }),
  commentBank: entry({ schema: BankComment, key: ['id'], indexes: ['questionId'], later: true }),
  messageTemplates: entry({ schema: MessageTemplate, key: ['id'], later: true }),
  templates: entry({ schema: SittingTemplate, key: ['id'], later: true }),
};

export type TableName = keyof typeof recordedTables;
export const tableNames = Object.keys(recordedTables) as TableName[]; // the keys of a literal object are its names
