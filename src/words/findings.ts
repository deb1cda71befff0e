import { counted } from '@/core/basics/counted';
import type { Finding, FindingCode } from '@/core/basics/common';
import type { Question } from '@/core/kinds';

const words: Record<FindingCode, (detail: string) => string> = {
  noTitle: () => 'the paper has no title',
  noQuestions: () => 'the paper has no questions',
  noStem: () => 'the question has no text',
  noPoints: () => 'it is worth no points',
  fewOptions: () => 'it needs at least two options',
  emptyOption: (detail) => `option ${detail} is empty`,
  equalOptions: (detail) => `options ${detail} are the same`,
  noKey: () => 'there is no key yet, so answers won’t be scored',
  everyOptionRight: () => 'every option is marked right',
  emptyAccepted: () => 'an accepted answer is empty',
  equalAccepted: (detail) => `“${detail}” is accepted twice`,
  noFullAnswer: () => 'no accepted answer gives all the points',
  fewItems: () => 'it needs at least two items',
  fewTargets: () => 'it needs at least two to choose from',
  emptyItem: () => 'an item is empty',
  equalItems: (detail) => `“${detail}” is there twice`,
  itemWithoutKey: (detail) => `“${detail}” has no match yet`,
  noGaps: () => 'the text has no gaps',
  gapNotInText: (detail) => `gap ${detail} is not in the text`,
  gapWithoutKey: (detail) => `gap ${detail} has no key, so answers won’t be scored`,
  hiddenTier: (detail) => `${detail} never counts: another accepted number covers it`,
  neverMet: (detail) => `“${detail}” can never match: it has only ignored characters`,
  noUnit: () => 'a unit is required, but none is given',
  badLink: (detail) => `“${detail}” isn’t a web address (https://…)`,
  drawTooMany: (detail) => `“${detail}” draws more questions than it has`,
  unevenDraw: (detail) => `“${detail}” draws from questions worth different points`,
  emptyPart: (detail) => `“${detail}” has no questions`,
  wrongTotal: (detail) => `the points don’t add up to ${detail}`,
  longestRight: (detail) => `the right option, ${detail}, is by far the longest and may give itself away`,
  aboveShuffled: (detail) => `option ${detail} refers to other options, but options are shuffled: pin it`,
  noScheme: () => 'there is no model answer or mark scheme',
  emptySchemeLine: () => 'a scheme line is empty',
  emptySchemeGroup: (detail) => `${groupCalled(detail)} of its scheme has no lines`,
  levelsOutOfOrder: (detail) => `the levels of ${groupCalled(detail)} neither rise nor fall all the way`,
  capOutOfReach: (detail) => `the lines of ${groupCalled(detail)} can’t reach its cap`,
  noWays: () => 'no way to show working is ticked',
  onlyDrawing: () => 'students who can’t draw need another way: tick one',
  emptyHint: () => 'a hint is empty',
  pictureWithoutText: () => 'a picture has no description',
  schemeBelowPoints: (detail) => `its scheme only adds up to ${counted(Number(detail), 'point')}`,
};

/** A finding in words, with the question it is about. */
export function findingWords(finding: Finding, questions: readonly Question[]): string {
  const number = questions.findIndex((question) => question.id === finding.questionId) + 1;
  const text = words[finding.code](finding.detail ?? '');
  return number > 0 ? `Question ${number}: ${text}` : text.charAt(0).toUpperCase() + text.slice(1);
}

/** A group of a scheme by its name, where it has one. */
function groupCalled(name: string): string {
  return name.trim() ? `“${name.trim()}”` : 'a group';
}
