import type { SchemeGroup, SchemeLine } from '../schemeLine';
import type { Question } from '..';
import type { RichText } from '../../basics/richText';
import type { XmlElement, XmlNode } from './element';

/** One entry of a mapping: what a value of the response gives. */
export interface MapEntry {
  key: string;
  value: number;
  caseSensitive?: boolean;
}

/** A response declaration: what is answered, and what is right. */
export interface Declaration {
  identifier: string;
  cardinality: 'single' | 'multiple' | 'ordered';
  baseType: 'identifier' | 'string' | 'float' | 'integer' | 'directedPair' | 'pair' | 'file';
  correct: string[];
  mapping?: { entries: MapEntry[]; lower?: number; upper?: number; otherwise?: number } | undefined;
}

/**
 * How the share of the points is computed. `match`: the correct response or nothing; `map`: the sum of the mappings;
 * `hand`: by a scorer; otherwise rules of its own, which set SCORE.
 */
export type Scoring = 'match' | 'map' | 'hand' | XmlElement[];

/** A comment shown under a condition. */
export interface Feedback {
  identifier: string;
  text: string;
  /** An expression that is true when it is shown. */
  when: XmlElement;
}

/** What of a question is particular to its kind, as QTI writes it. */
export interface ItemForm {
  declarations: Declaration[];
  /** Stands after the text of the question. */
  interactions: XmlElement[];
  scoring: Scoring;
  feedback?: Feedback[];
  /** Blocks for the scorer, as lines. */
  rubric?: XmlElement[];
}

/** An item as it was read, made ready for the kinds to look at. */
export interface ItemSource {
  /** All interactions, in the order of the body. */
  interactions: XmlElement[];
  declarationOf: (interaction: XmlElement) => Declaration | undefined;
  body: XmlElement;
  scoring: 'match' | 'map' | 'other' | 'none';
  /** The branches of rules that set SCORE to a number, in their order. */
  branches: { when: XmlElement; score: number }[];
  /** What all the points are, in the numbers of the item. */
  max: number;
  /** Comments by their identifier. */
  feedback: ReadonlyMap<string, string>;
  /** Lines for the scorer. */
  marking: { modelAnswer: string; scheme: SchemeLine[]; schemeGroups?: SchemeGroup[] };
  rich: (nodes: readonly XmlNode[]) => RichText;
  /** The id that an identifier of the item stands for. */
  id: (identifier: string) => string;
  /** Names something of the item that cannot be carried. */
  lose: (code: LossCode, detail?: string) => void;
}

/** What could not be carried, or only in part. */
export type LossCode =
  | 'picture'
  | 'markup'
  | 'link'
  | 'interaction'
  | 'split'
  | 'noInteraction'
  | 'scoring'
  | 'partPoints'
  | 'feedback'
  | 'severalTargets'
  | 'noOrder'
  | 'template'
  | 'adaptive'
  | 'timeLimit'
  | 'branching'
  | 'tooMany'
  | 'changedElsewhere'
  | 'onlyHere'
  | 'newPage'
  | 'wantedPoints'
  | 'unreadItem';

/** The fields that are the kind's own; the rest of a question is read for every kind alike. */
export type OwnFields<Q extends Question> = Partial<Q> & Pick<Q, 'kind'>;

/** How a kind is written as a QTI item, and read from one. */
export interface QtiKind<Q extends Question> {
  /** An item is held against forms with a lower turn first; the first that fits reads it. */
  turn: number;
  write: (question: Q) => ItemForm;
  /** Null when the item is not of this kind. */
  read: (source: ItemSource) => OwnFields<Q> | null;
}
