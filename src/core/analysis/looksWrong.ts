import { sumBy } from 'remeda';
import type { Question } from '../kinds';
import { kindOf } from '../kinds';
import type { AnswerFigures, CategoryFigures, LineFigures } from './answerFigures';

/** Fewer students than this, and nothing is said of a question. */
export const fewestStudents = 30;

/** What looks wrong with a question, and what it is said of. The words are `words/looksWrong`. */
export type LooksWrong =
  /** The strong miss the key and choose this instead. */
  | { code: 'wrongKey'; category: CategoryFigures; keyed: CategoryFigures }
  /** The strong choose this as well as the key. */
  | { code: 'twoRight'; category: CategoryFigures; keyed: CategoryFigures }
  /** Many strong students wrote this, and it is not accepted. */
  | { code: 'acceptIt'; category: CategoryFigures }
  | { code: 'nobody'; facility: number }
  | { code: 'everybody'; facility: number }
  /** The strong do no better than the weak. */
  | { code: 'doesNotTell'; discrimination: number }
  /** Nobody chose it. */
  | { code: 'undrawn'; category: CategoryFigures }
  /** Right but for the form. */
  | { code: 'formOnly'; answers: number }
  | { code: 'lineNobody'; line: LineFigures }
  | { code: 'lineEverybody'; line: LineFigures }
  /** Most of those who left it blank had left everything after it blank too. */
  | { code: 'noTime'; students: number; of: number }
  /** A marker’s points are far from the others’ for students of equal totals. */
  | { code: 'markerApart'; markerId: string; difference: number; answers: number }
  /** A group does otherwise than others of equal totals. */
  | { code: 'groupApart'; group: string; delta: number; answers: number };

export type LooksWrongCode = LooksWrong['code'];

/** The gravest first. */
export const gravity: readonly LooksWrongCode[] = [
  'wrongKey',
  'twoRight',
  'acceptIt',
  'nobody',
  'markerApart',
  'formOnly',
  'groupApart',
  'noTime',
  'doesNotTell',
  'lineNobody',
  'lineEverybody',
  'everybody',
  'undrawn',
];

/** What the rules of one question go by. */
export interface QuestionEvidence {
  question: Question;
  /** How many have points for it. */
  scored: number;
  facility: number | null;
  discrimination: number | null;
  answers: AnswerFigures;
}

/**
 * What looks wrong with one question, gravest first. Thresholds are ours, set on made-up classes with planted faults
 * (tests/unit/plantedFaults.test.ts); where one is from a source it says so.
 */
export function looksWrong(evidence: QuestionEvidence): LooksWrong[] {
  const { question, scored, facility, discrimination, answers } = evidence;
  if (scored < fewestStudents || facility === null) return [];
  const found: LooksWrong[] = [];
  const byKey = kindOf(question).scoredBy === 'key';
  if (byKey) found.push(...ofCategories(answers, scored));
  const keyInDoubt = found.length > 0;
  if (facility <= 0.05 && !keyInDoubt) found.push({ code: 'nobody', facility });
  if (facility >= 0.97) found.push({ code: 'everybody', facility });
  else if (!keyInDoubt && discrimination !== null && doesNotTell(discrimination, scored))
    found.push({ code: 'doesNotTell', discrimination });
  // A tenth of all, and more than a few.
  if (answers.formOnly >= Math.max(4, 0.1 * scored))
    found.push({ code: 'formOnly', answers: answers.formOnly });
  for (const line of answers.lines)
    if (line.marked >= fewestStudents) {
      if (line.met === 0) found.push({ code: 'lineNobody', line });
      if (line.met === line.marked) found.push({ code: 'lineEverybody', line });
    }
  // Of an easy question hardly anyone is left to choose what is wrong.
  if (byKey && facility < 0.6)
    for (const category of answers.categories)
      if (category.offered && !category.part && category.count === 0 && category.share === 0)
        found.push({ code: 'undrawn', category });
  return found.sort((a, b) => gravity.indexOf(a.code) - gravity.indexOf(b.code));
}

/** Whether a question tells strong from weak so little that it is not by chance: below .20, poor by Ebel & Frisbie 1991 (from memory). */
function doesNotTell(discrimination: number, n: number): boolean {
  return Math.tanh(Math.atanh(Math.min(0.999, discrimination)) + 1.28 / Math.sqrt(n - 3)) < 0.2;
}

/** What the strong chose or wrote that gives less than they would deserve. */
function ofCategories({ categories, thirds }: AnswerFigures, scored: number): LooksWrong[] {
  const [lower, middle, upper] = thirds;
  if (lower === 0 || upper === 0) return [];
  const found: LooksWrong[] = [];
  const shareOf = ({ thirds: of }: CategoryFigures) => ({ low: of[0] / lower, high: of[2] / upper });
  for (const category of categories) {
    if (category.share === null || category.share >= 1) continue;
    const ofPart = categories.filter(({ part }) => part?.id === category.part?.id);
    const keyed = mostChosen(ofPart.filter(({ share }) => share === 1));
    const { low, high } = shareOf(category);
    if (!category.offered) {
      // By an eighth of all and a fifth of the strong.
      if (category.count >= 0.12 * scored && high >= 0.2 && strength(category, ofPart, keyed) > -0.2)
        found.push({ code: 'acceptIt', category });
      continue;
    }
    if (!keyed || category.count < 0.2 * scored) continue;
    const key = shareOf(keyed);
    const better = (category.thirds[1] + category.thirds[2]) / (middle + upper);
    if (high > key.high && high >= low && (keyed.correlation ?? 0) <= 0.05)
      found.push({ code: 'wrongKey', category, keyed });
    else if (better >= 0.29 && high + key.high >= 0.77 && strength(category, ofPart, keyed) > -0.25)
      found.push({ code: 'twoRight', category, keyed });
  }
  return found;
}

const mostChosen = (rows: readonly CategoryFigures[]): CategoryFigures | undefined =>
  rows.reduce<CategoryFigures | undefined>(
    (best, each) => (best && best.count >= each.count ? best : each),
    undefined,
  );

/**
 * Whether those who answered so are as strong as those who met the key (above 0) or as weak as those who were wrong otherwise (below
 * 0), by the points for all other questions, in their standard deviation. A wrong answer is near −1, a right one near 1.
 */
function strength(
  category: CategoryFigures,
  all: readonly CategoryFigures[],
  keyed: CategoryFigures | undefined,
): number {
  const wrong = all.filter((each) => each !== category && each.share !== null && each.share < 1);
  const wrongCount = sumBy(wrong, ({ count }) => count);
  const within = [category, ...wrong, ...(keyed ? [keyed] : [])];
  const squares = sumBy(within, ({ rest }) => rest.squares);
  const of = sumBy(within, ({ count }) => count) - within.length;
  const deviation = of > 0 ? Math.sqrt(squares / of) : 0;
  if (deviation === 0 || !keyed || keyed.count === 0) return 0;
  const wrongMean =
    wrongCount === 0
      ? keyed.rest.mean - deviation
      : sumBy(wrong, ({ rest, count }) => rest.mean * count) / wrongCount;
  return (2 * category.rest.mean - wrongMean - keyed.rest.mean) / deviation;
}
