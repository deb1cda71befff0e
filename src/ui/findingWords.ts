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
  noKey: () => 'there is no key yet; answers will stay unscored',
  everyOptionRight: () => 'every option is right',
  emptyAccepted: () => 'an accepted answer is empty',
  equalAccepted: (detail) => `“${detail}” is accepted twice`,
  noFullAnswer: () => 'no accepted answer gives all the points',
  fewItems: () => 'it needs at least two items',
  fewTargets: () => 'it needs at least two to choose from',
  emptyItem: () => 'an item is empty',
  equalItems: (detail) => `“${detail}” is there twice`,
  itemWithoutKey: (detail) => `“${detail}” belongs nowhere yet`,
  noGaps: () => 'the text has no gap',
  gapNotInText: (detail) => `gap ${detail} is not in the text`,
  gapWithoutKey: (detail) => `gap ${detail} has no key; answers will stay unscored`,
  hiddenTier: (detail) => `${detail} never counts: another accepted number takes all of it`,
  neverMet: (detail) => `“${detail}” can never be met: forgiving leaves nothing of it`,
  noUnit: () => 'a unit is asked for, but none is named',
  badLink: (detail) => `“${detail}” is no address that can be opened (https://…)`,
  drawTooMany: (detail) => `“${detail}” draws more questions than it has`,
  unevenDraw: (detail) => `“${detail}” draws from questions worth different points`,
  emptyPart: (detail) => `“${detail}” has no questions`,
  wrongTotal: (detail) => `the points do not add up to ${detail}`,
  longestRight: (detail) => `the right option ${detail} is much the longest and may give itself away`,
  aboveShuffled: (detail) => `option ${detail} speaks of the others, but options are shuffled: pin it`,
  noScheme: () => 'there is neither a model answer nor a scheme to mark by',
  emptySchemeLine: () => 'a scheme line is empty',
  noWays: () => 'no way to show the working is ticked',
  onlyDrawing: () => 'who cannot draw with a pointer has no other way: tick one more',
  emptyHint: () => 'a hint is empty',
  pictureWithoutText: () => 'a picture has no words for who cannot see it',
  schemeBelowPoints: (detail) => `its scheme reaches ${counted(Number(detail), 'point')} only`,
};

/** A finding in words, with the question it is about. */
export function findingWords(finding: Finding, questions: readonly Question[]): string {
  const number = questions.findIndex((question) => question.id === finding.questionId) + 1;
  const text = words[finding.code](finding.detail ?? '');
  return number > 0 ? `Question ${number}: ${text}` : text.charAt(0).toUpperCase() + text.slice(1);
}
