import { groupBy } from '../basics/groupBy';
import { kindOf, type KindName, type Question } from '../kinds';
import type { BankQuestion } from '../model/bank';
import type { Paper } from '../model/paper';
import { plainText } from '../basics/richWords';

/** How a question did in one sitting. */
export interface QuestionRecord {
  questionId: string;
  sittingId: string;
  /** Of the sitting. */
  title: string;
  /** The version of the paper that was sat; null while nobody has started. */
  version: number | null;
  /** The question as it stood in that version: what its answers stay with. */
  asSat: Question | null;
  /** When the sitting opened. */
  opensAt: string;
  /** How many answers have points. */
  scored: number;
  facility: number | null;
  discrimination: number | null;
}

/** Where a question of the bank stands in a paper. */
export interface BankUse {
  paperId: string;
  title: string;
  questionId: string;
  /** False when the paper's question has been changed, or the bank's. */
  same: boolean;
}

/** One question as the bank lists it: of the bank itself, or of a paper alone. */
export interface BankRow {
  /** Stable: the id in the bank, or of the question in its paper. */
  id: string;
  question: Question;
  /** Null: it is in one paper only, and not in the bank yet. */
  entry: BankQuestion | null;
  uses: BankUse[];
  /** Of all sittings with it, the latest first. */
  records: QuestionRecord[];
  /** Of the latest sitting that has figures; null when there is none. */
  record: QuestionRecord | null;
  /** When a sitting with it last opened; null: never. */
  lastUsed: string | null;
}

/** All questions of the bank, and of papers that are not in it, by their words. */
export function bankRows(
  entries: readonly BankQuestion[],
  papers: readonly Paper[],
  records: readonly QuestionRecord[],
): BankRow[] {
  const recordsOf = groupBy(records, ({ questionId }) => questionId);
  const known = new Map(entries.map((entry) => [entry.id, entry]));
  const usesOf = new Map<string, BankUse[]>();
  const own: BankRow[] = [];
  for (const paper of papers)
    for (const question of paper.questions) {
      const entry = known.get(question.bankId ?? '');
      const use = {
        paperId: paper.id,
        title: paper.title,
        questionId: question.id,
        same: entry === undefined || sameQuestion(question, entry.question),
      };
      if (entry) usesOf.set(entry.id, [...(usesOf.get(entry.id) ?? []), use]);
      else own.push(rowOf(question.id, question, null, [use], recordsOf));
    }
  const kept = entries.map((entry) =>
    rowOf(entry.id, entry.question, entry, usesOf.get(entry.id) ?? [], recordsOf),
  );
  return [...kept, ...own].sort((a, b) =>
    plainText(a.question.stem).localeCompare(plainText(b.question.stem)),
  );
}

function rowOf(
  id: string,
  question: Question,
  entry: BankQuestion | null,
  uses: BankUse[],
  recordsOf: ReadonlyMap<string, QuestionRecord[]>,
): BankRow {
  const records = uses
    .flatMap((use) => recordsOf.get(use.questionId) ?? [])
    .sort((a, b) => b.opensAt.localeCompare(a.opensAt));
  const record = records.find((each) => each.facility !== null) ?? null;
  return { id, question, entry, uses, records, record, lastUsed: records[0]?.opensAt ?? null };
}

/** True when two questions are the same but for where they stand. */
export function sameQuestion(a: Question, b: Question): boolean {
  return JSON.stringify(withoutPlace(a)) === JSON.stringify(withoutPlace(b));
}

/** A question without its id, part and link, in an order of fields that does not matter. */
function withoutPlace(question: Question): [string, unknown][] {
  const { id: _id, partId: _part, bankId: _bank, ...rest } = question;
  return Object.entries(rest).sort(([a], [b]) => (a < b ? -1 : 1));
}

/** The question of the bank as a paper takes it: linked, with an id of its own. */
export function linkedCopy(entry: BankQuestion, newId: () => string): Question {
  const { partId: _, ...question } = entry.question;
  return { ...question, id: newId(), bankId: entry.id } as Question; // the kind's own fields are untouched
}

/**
 * Hard, middling and easy questions by their facility; common practice in test analysis, no source for the very lines.
 */
export type FacilityBand = 'hard' | 'middling' | 'easy';

export function facilityBand(facility: number): FacilityBand {
  if (facility < 0.4) return 'hard';
  return facility <= 0.8 ? 'middling' : 'easy';
}

/** Whether a question tells strong from weak: 0.2 is the line that is commonly drawn; common practice, no source. */
export type DiscriminationBand = 'weak' | 'good';

export const discriminationBand = (value: number): DiscriminationBand => (value < 0.2 ? 'weak' : 'good');

/** What is looked for in the bank; what is empty does not matter. */
export interface BankFilter {
  words: string;
  tag: string;
  kind: KindName | '';
  /** Where a question stands: all, only those of the bank, or only those never used. */
  where: 'all' | 'bank' | 'neverUsed';
  /** Of exactly so many points; null: of any. */
  points: number | null;
  facility: FacilityBand | '';
  discrimination: DiscriminationBand | '';
  order: 'words' | 'facility' | 'lastUsed' | 'points';
}

export function filteredRows(rows: readonly BankRow[], filter: BankFilter): BankRow[] {
  const words = filter.words.toLowerCase().split(/\s+/).filter(Boolean);
  const found = rows.filter(({ question, entry, lastUsed, record }) => {
    if (filter.kind && question.kind !== filter.kind) return false;
    if (filter.tag && !question.tags.includes(filter.tag)) return false;
    if (filter.where === 'bank' && entry === null) return false;
    if (filter.where === 'neverUsed' && lastUsed !== null) return false;
    if (filter.points !== null && question.points !== filter.points) return false;
    const { facility = null, discrimination = null } = record ?? {};
    if (filter.facility && (facility === null || facilityBand(facility) !== filter.facility)) return false;
    if (
      filter.discrimination &&
      (discrimination === null || discriminationBand(discrimination) !== filter.discrimination)
    )
      return false;
    const text = [plainText(question.stem), kindOf(question).keyText(question), ...question.tags]
      .join(' ')
      .toLowerCase();
    return words.every((word) => text.includes(word));
  });
  const by: Record<BankFilter['order'], (a: BankRow, b: BankRow) => number> = {
    words: () => 0,
    facility: (a, b) => (a.record?.facility ?? 2) - (b.record?.facility ?? 2),
    lastUsed: (a, b) => (a.lastUsed ?? '').localeCompare(b.lastUsed ?? ''),
    points: (a, b) => a.question.points - b.question.points,
  };
  return [...found].sort(by[filter.order]);
}
