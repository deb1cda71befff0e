import { counted } from '@/core/basics/counted';
import type { LossCode } from '@/core/kinds/qti/ItemForm';
import type { Loss } from '@/core/formats/qti/losses';
import type { Refusal, Refused } from '@/core/basics/refused';

const words: Record<LossCode, (detail: string) => string> = {
  picture: (detail) => `the picture ${detail} is not in the package, or is none that can be shown`,
  markup: (detail) => `${detail}: its words are kept, its form is not`,
  link: (detail) => `“${detail}” is no address that can be opened; its words are kept`,
  interaction: (detail) => `${detail}: there is no kind of question for it here, so it is left out`,
  split: (detail) => `it asks in several ways at once and is ${detail} questions here: look at their points`,
  noInteraction: () => 'it asks nothing, and is left out',
  scoring: () => 'it is scored by rules of its own: check its key and points',
  partPoints: () => 'more than one option gives points; the best is the key, the others give none',
  feedback: (detail) => `the comment “${detail}” goes by a condition that is not known here`,
  severalTargets: () => 'an item belongs to several places; the first is its key',
  noOrder: () => 'it has no right order; the order of the file is taken',
  template: () => 'it has values drawn by chance; what stands in the file is taken as it is',
  adaptive: () => 'it goes on in several steps; only the first is taken',
  timeLimit: (detail) =>
    `a time limit of ${counted(Number(detail), 'minute')}: set it when you give the paper`,
  branching: () => 'it leads different students to different questions; all are taken, in their order',
  tooMany: (detail) => `more than a paper holds: ${detail} left out`,
  changedElsewhere: (detail) =>
    `it was changed elsewhere; ${detail ? `what Gribbet had kept of its ${fieldWords[detail] ?? detail}` : 'what Gribbet had kept'} no longer fits and is left out`,
  onlyHere: (detail) => `only Gribbet reads its ${fieldWords[detail] ?? detail}`,
  newPage: () => 'that it begins a new page',
  wantedPoints: (detail) => `that the points are to add up to ${detail}`,
  unreadItem: (detail) =>
    detail === '1.2' ? 'it is of QTI 1.2, which is not read' : `it cannot be read and is left out. ${detail}`,
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
  tags: 'tags',
  points: 'points',
  text: 'text with gaps',
  targets: 'targets',
  wrongTakesOff: 'rule that wrong pairs take off',
  shuffle: 'order for each student',
  modelAnswer: 'model answer',
  options: 'options',
  items: 'items',
  scheme: 'mark scheme',
  commentRight: 'comment when right',
  commentWrong: 'comment when wrong',
  commentPart: 'comment when partly right',
};

export const lossWords = ({ code, detail }: Loss) => words[code](detail);

/** Losses at one place together, in the order they were met. */
export function lossesByPlace(losses: readonly Loss[]): [place: string, said: string[]][] {
  const places = new Map<string, string[]>();
  for (const loss of losses) places.set(loss.place, [...(places.get(loss.place) ?? []), lossWords(loss)]);
  return [...places];
}

const refusals: Record<Refusal, string> = {
  notZip: 'It is no zip file, or a damaged one.',
  damagedFile: 'A file in it is damaged: it is not what its checksum says.',
  locked: 'A file in it is locked with a password. Save it without one.',
  notPackage: 'It is a zip, but no QTI package: imsmanifest.xml is not in it.',
  notWorkbook: 'It is no XLSX or ODS workbook, or a damaged one.',
  noSheet: 'There is no sheet in the workbook.',
  notSheet: 'It is neither an XLSX or ODS workbook nor a text with commas, semicolons or tabs.',
  openQuote:
    'A cell that begins with a quotation mark does not end with one. Double a mark that belongs to the text.',
  tooManyCells: 'The sheet is larger than one of a class or a paper.',
  tooLarge: 'It would take more room than such a file needs.',
  tooManyFiles: 'It holds more files than such a package needs.',
  badPath: 'It names a file outside of the package.',
  notXml: 'A file in it is no XML that can be read.',
  tooDeep: 'A file in it is nested deeper than any question is.',
  entities: 'A file in it declares a document type or entities, which could reach outside of it.',
  script: 'A file in it holds something that would run as a program.',
  missingColumn: 'A column that is needed is not in it.',
  missingFile: 'A file that it needs is not in it.',
  nothingIn: 'There is no test and no question in it.',
};

/** Why a file was refused, and where. */
export function refusalWords(
  { why, place, detail }: Pick<Refused, 'why' | 'place' | 'detail'>,
  file = '',
): string {
  const where = [place, detail].filter(Boolean).join(': ');
  return `${file ? `${file}: ` : ''}${refusals[why]}${where ? ` (${where})` : ''} Nothing was changed.`;
}
