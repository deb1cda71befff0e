import { z } from 'zod';
import type { Chance } from '../basics/chance';
import { Id, Line, Points, Text, type Finding } from '../basics/common';
import { RichText } from '../basics/richText';
import type { FileRef, PictureRef } from '../basics/file';
import { SchemeGroup, SchemeLine } from './schemeLine';
import { WorkingWay } from './working/WorkingWay';

/** A word of help, and the share of the points that taking it costs. */
export const Hint = z.object({ id: Id, text: Text, cost: z.number().min(0).max(1) });
export type Hint = z.infer<typeof Hint>;

/** What points by hand are a multiple of. */
export const PointStep = z.union([z.literal(0.25), z.literal(0.5), z.literal(1)]);
export type PointStep = z.infer<typeof PointStep>;

/** What every question has, whatever its kind. Spread into the schema of a kind. */
export const questionFields = {
  id: Id,
  stem: RichText,
  points: Points,
  /** What points by hand are a multiple of; absent: quarters. */
  pointStep: PointStep.optional(),
  tags: Line.array().max(50),
  /** Shown to whoever had all the points. */
  commentRight: Text,
  /** Shown to whoever had less. */
  commentWrong: Text,
  /** Shown to whoever had some of the points; without it, what is shown when wrong. */
  commentPart: Text.optional(),
  /** Something to read on, shown with the comments. Kept as typed; opened only when it is http or https. */
  link: z.object({ href: Line, text: Line }).optional(),
  /** For the teacher only. */
  note: Text,
  /** The part of the paper it belongs to; none: before the first part. */
  partId: Id.optional(),
  /** The question of the bank it is linked to. */
  bankId: Id.optional(),
  /** What helps along, in the order in which it is given, where a sitting gives hints. */
  hints: Hint.array().max(10).optional(),
  /** Asks for the way to the answer as well: a share of the points by key, the rest by hand. */
  working: z
    .object({
      keyShare: z.number().min(0).max(1),
      modelAnswer: Text,
      scheme: SchemeLine.array().max(26),
      schemeGroups: SchemeGroup.array().max(12).optional(),
      /** How it may be shown; absent: in words, as it was before there were other ways. */
      ways: WorkingWay.array().max(4).optional(),
    })
    .optional(),
};

/** The same fields at the start. */
export const emptyQuestionFields = {
  stem: '',
  points: 1,
  tags: [] as string[],
  commentRight: '',
  commentWrong: '',
  note: '',
};

export interface QuestionBase {
  id: string;
  kind: string;
  stem: RichText;
  points: number;
  pointStep?: PointStep | undefined;
  tags: string[];
  commentRight: string;
  commentWrong: string;
  commentPart?: string | undefined;
  link?: { href: string; text: string } | undefined;
  note: string;
  partId?: string | undefined;
  bankId?: string | undefined;
  working?:
    | {
        keyShare: number;
        modelAnswer: string;
        scheme: SchemeLine[];
        schemeGroups?: SchemeGroup[] | undefined;
        ways?: WorkingWay[] | undefined;
      }
    | undefined;
  hints?: Hint[] | undefined;
}

/**
 * What may be known of a question without its key: the fields of every kind, named one by one. A kind adds those of its
 * own that students see; whatever else a question holds stays behind, also what is thought of later.
 */
export function bareFields({ id, stem, points, partId, working }: QuestionBase) {
  return {
    ...emptyQuestionFields,
    id,
    stem,
    points,
    ...(partId !== undefined && { partId }),
    ...(working && {
      working: {
        keyShare: working.keyShare,
        modelAnswer: '',
        scheme: [],
        ...(working.ways && { ways: working.ways }),
      },
    }),
  };
}

/** What every student's question has: nothing that gives the answer away. */
export const studentQuestionFields = { id: Id, stem: RichText, points: Points, partId: Id.optional() };

export function studentFields({ id, stem, points, partId }: QuestionBase) {
  return { id, stem, points, ...(partId !== undefined && { partId }) };
}

/** An answer as it is put on paper. */
export interface AnswerPieces {
  words: string;
  /** Where some of the words are formulas: those that are none, and the formulas as TeX. */
  set?: { words: string; maths: readonly string[] };
  /** Lines of a drawing, and the picture they are drawn on. */
  drawing?: { lines: readonly (readonly number[])[]; canvas?: PictureRef | undefined };
  files: readonly FileRef[];
}

/** What the key says of one answer. */
export interface KeyVerdict {
  /** Share of the question's points, 0 to 1. */
  share: number;
  /** Comments the key holds for this very answer: of its options, of the accepted answer it met. */
  comments: string[];
}

/** A wrong answer that is nearly an accepted one. */
export interface NearMiss {
  /** The accepted answer it comes near to. */
  text: string;
  /** Share of the points that answer gives. */
  share: number;
}

/** A wording, and where in a question it stands: the id of the gap, or of the question itself. */
export interface Wording {
  id: string;
  text: string;
}

/** One row of "what was answered": an option, an accepted answer, or a wrong answer in its own words. */
export interface Category {
  /** Stable within the question: an option id, an accepted answer's id, or the forgiven text. */
  id: string;
  label: string;
  /** 1 right, 0 wrong, between: part; null when only a marker can say. */
  share: number | null;
  /** True for what the question itself offers, false for what students came up with. */
  offered: boolean;
  /** What of the question it answers, where several things are asked: a gap, an item. */
  part?: { id: string; label: string };
}

/** How far an answer of a kind has come, and what it stands with: what the student's page asks of a kind. */
export interface AnswerFilling<Q, R> {
  isBlank(response: R): boolean;
  /** Whether only some of what is asked has been filled in; absent: an answer of this kind is never half. */
  isHalf?(question: Q, response: R): boolean;
  /** The id of the question this one is the working of; only for kinds that working can be asked in. */
  workingOf?(question: Q): string | undefined;
}

/**
 * All there is to know about one kind of question. The rest of the product asks the kind, and never which kind
 * it is. `Q` is the question as the teacher has it, `S` as the student gets it, `R` the response.
 */
export interface QuestionKind<Q extends QuestionBase, S, R> extends AnswerFilling<Q | S, R> {
  readonly kind: Q['kind'];
  /** What a teacher calls it. */
  readonly label: string;
  readonly schema: z.ZodType<Q>;
  readonly studentSchema: z.ZodType<S>;
  readonly responseSchema: z.ZodType<R>;
  /** Who gives the points: the key, or a marker by hand. */
  readonly scoredBy: 'key' | 'hand';
  /** Whether an answer can have files with it. */
  readonly takesFiles?: true;

  empty(newId: () => string): Q;
  /** A copy in which every id is new, with the key still pointing to the right places. */
  copy(question: Q, newId: () => string): Q;
  /** What is not ready in it, beyond what is checked for every kind. */
  findings(question: Q): Finding[];
  hasKey(question: Q): boolean;
  /** Points by key. Only called when `hasKey` and the answer is not blank; never for kinds scored by hand. */
  score(question: Q, response: R): KeyVerdict;
  /** What someone might answer who does not know, by chance: for a made-up class. */
  guess(question: Q, chance: Chance): R;
  /** Two answers are the same to a marker when this text is the same. A blank answer gives ''. */
  sameAs(question: Q, response: R): string;
  /** The response in words, as the student gave it. */
  asText(question: Q | S, response: R): string;
  /**
   * The answer of someone who wrote this, in a sheet or on paper: options by their words, letter or number. Reads what `asText`
   * gives. Null where it can be no answer to the question. Never called with a blank text.
   */
  fromText(question: Q, text: string): R | null;
  /** What an answer is beside its words, for paper; absent: words alone say it. */
  pieces?(question: Q, response: R): AnswerPieces;
  /** What is accepted, in words; the model answer for a kind marked by hand. */
  keyText(question: Q): string;
  /** The rows that the question itself offers, before any answer. */
  offered(question: Q): Category[];
  /** Which rows one answer counts in. */
  categoriesOf(question: Q, response: R): Category[];
  /** An answer that gets all the points by the key; null where only a marker can say, or there is no key. */
  rightAnswer(question: Q): R | null;
  /**
   * The question with this answer as its key; what was accepted before stays where it can. A blank answer changes
   * nothing.
   */
  keyedBy(question: Q, response: R, newId: () => string): Q;
  /** An answer with something right and something not, for a worked line beside the rule; null where there is none. */
  partlyRight(question: Q): R | null;
  /**
   * The question as the student gets it: no key, scheme, comment or note. The seed decides every order that is
   * drawn by chance, so that the same attempt always sees the same one.
   */
  forStudent(question: Q, seed: string): S;
  /**
   * The question without anything a student must not see, and the same to every student as with it: what may lie on a
   * server, or in a file.
   */
  withoutKey(question: Q): Q;
  /**
   * The texts in which pictures may stand, besides the stem, with the fields they are written in; absent: none.
   */
  richTexts?(question: Q): { rich: RichText; field: string }[];
  /** The question with its options shuffled for each student, or not; only for kinds with options. */
  withShuffle?(question: Q, shuffle: boolean): Q;
  /** The lines a marker goes by, as they are written, and the question with others; only for kinds marked by hand. */
  scheme?(question: Q): SchemeLine[];
  schemeGroups?(question: Q): SchemeGroup[];
  withScheme?(question: Q, scheme: SchemeLine[]): Q;
  /**
   * The question with the option at this place, from 0, made right, or no longer right where several can be; null
   * where there is no such option. Only for kinds with options.
   */
  withOptionRight?(question: Q, place: number): Q | null;
  /**
   * The wordings of an answer that the key does not accept, and the question accepting one of them for a share of its points, or
   * of its gap's; only for kinds with accepted answers.
   */
  unaccepted?(question: Q, response: R): Wording[];
  accepting?(question: Q, wording: Wording, share: number, newId: () => string): Q;
  /** Whether an answer would have more of the points but for its form: a unit, figures, an accent. */
  formOnly?(question: Q, response: R): boolean;
  /** What a wrong answer comes near to, to put forward to the marker; only for kinds that forgive typing. */
  nearMiss?(question: Q, response: R): NearMiss | null;
}
