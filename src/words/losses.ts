import { groupBy } from '@/core/basics/groupBy';
import { counted } from '@/core/basics/counted';
import type { LossCode } from '@/core/kinds/qti/ItemForm';
import type { Loss } from '@/core/formats/qti/losses';
import type { Refusal, Refused } from '@/core/basics/refused';

const words: Record<LossCode, (detail: string) => string> = {
  picture: (detail) => `the picture ${detail} isn’t in the package, or can’t be shown`,
  markup: (detail) => `${detail}: the text is kept, the formatting isn’t`,
  link: (detail) => `“${detail}” isn’t a web address; the text is kept`,
  interaction: (detail) => `${detail}: Gribbet has no question kind for it, so it is left out`,
  split: (detail) =>
    `it combines several interactions and becomes ${detail} questions here: check their points`,
  noInteraction: () => 'it has no interaction, and is left out',
  scoring: () => 'it has its own scoring rules: check its key and points',
  partPoints: () => 'more than one option gives points; the best is the key, the others get none',
  feedback: (detail) => `the comment “${detail}” depends on a condition Gribbet doesn’t know`,
  severalTargets: () => 'an item belongs to several places; the first is its key',
  noOrder: () => 'it has no right order; the order in the file is used',
  template: () => 'it has random values; the text in the file is used as it is',
  adaptive: () => 'it has several steps; only the first is imported',
  timeLimit: (detail) =>
    `a time limit of ${counted(Number(detail), 'minute')}: set it when you give the paper`,
  branching: () => 'it branches to different questions; all are imported, in order',
  tooMany: (detail) => `more than a paper can hold: ${detail} left out`,
  changedElsewhere: (detail) =>
    `it was changed elsewhere; ${detail ? `what Gribbet had kept of its ${fieldWords[detail] ?? detail}` : 'what Gribbet had kept'} no longer fits and is left out`,
  onlyHere: (detail) => `only Gribbet reads its ${fieldWords[detail] ?? detail}`,
  newPage: () => 'that it begins a new page',
  wantedPoints: (detail) => `that the points are to add up to ${detail}`,
  unreadItem: (detail) =>
    detail === '1.2'
      ? 'it is QTI 1.2, which can’t be imported'
      : `it can’t be read and is left out. ${detail}`,
};

/** What the fields of a question are called. */
export const fieldWords: Record<string, string> = {
  rule: 'rule for part points',
  weights: 'points for each option',
  accepted: 'accepted answers, with their shares and comments',
  forgive: 'list of what does not matter',
  acceptsNearMisses: 'taking of near misses',
  units: 'units',
  unitAsked: 'asking for a unit',
  figures: 'asking for figures',
  gaps: 'gaps',
  canvas: 'picture to draw on',
  hints: 'hints',
  working: 'working, asked for beside the answer',
  most: 'number of files',
  sorts: 'sorts of files',
  ways: 'ways of working',
  link: 'link to read on',
  stem: 'text',
  kind: 'kind',
  key: 'key',
  also: 'options taken as well',
  tags: 'tags',
  points: 'points',
  pointStep: 'steps of the points',
  text: 'text with gaps',
  targets: 'targets',
  wrongTakesOff: 'rule that wrong pairs take off',
  shuffle: 'order for each student',
  modelAnswer: 'model answer',
  options: 'options',
  items: 'items',
  scheme: 'mark scheme',
  schemeGroups: 'groups of the mark scheme',
  commentRight: 'comment when right',
  commentWrong: 'comment when wrong',
  commentPart: 'comment when partly right',
};

export const lossWords = ({ code, detail }: Loss) => words[code](detail);

/** Losses at one place together, in the order they were met. */
export function lossesByPlace(losses: readonly Loss[]): [place: string, said: string[]][] {
  return [...groupBy(losses, ({ place }) => place)].map(([place, all]) => [place, all.map(lossWords)]);
}

const refusals: Record<Refusal, string> = {
  notPages: 'It isn’t a PDF, a picture (JPEG, PNG, TIFF, WebP) or a zip of them, or it is damaged.',
  pictureTooLarge: 'A page of it has too many pixels. Scan at 150 to 300 dots an inch.',
  tooManyPages: 'It has more pages than can be read at once. Split it.',
  notZip: 'It isn’t a zip file, or it is damaged.',
  damagedFile: 'A file in it is damaged: its checksum doesn’t match.',
  locked: 'A file in it has a password. Save it without one.',
  notPackage: 'It is a zip file but not a QTI package: imsmanifest.xml is missing.',
  notWorkbook: 'It isn’t an XLSX or ODS workbook, or it is damaged.',
  noSheet: 'The workbook has no sheets.',
  notSheet: 'It isn’t an XLSX or ODS workbook, or text with commas, semicolons or tabs.',
  openQuote:
    'A cell that begins with a quotation mark doesn’t end with one. Double a quotation mark that is part of the text.',
  tooManyCells: 'The sheet is too large for a class or a paper.',
  tooLarge: 'It unpacks to more than such a file needs.',
  tooManyFiles: 'It holds more files than such a package needs.',
  badPath: 'It refers to a file outside the package.',
  notXml: 'A file in it isn’t readable XML.',
  tooDeep: 'A file in it is nested too deeply.',
  entities: 'A file in it declares a document type or entities, which could reach outside the package.',
  script: 'A file in it contains something that could run as a program.',
  missingColumn: 'A required column is missing.',
  missingFile: 'A required file is missing.',
  nothingIn: 'It has no tests or questions.',
};

/** Why a file was refused, and where. */
export function refusalWords(
  { why, place, detail }: Pick<Refused, 'why' | 'place' | 'detail'>,
  file = '',
): string {
  const where = [place, detail].filter(Boolean).join(': ');
  return `${file ? `${file}: ` : ''}${refusals[why]}${where ? ` (${where})` : ''} Nothing was changed.`;
}
