import type { Chance } from '../basics/chance';

/** What is written where something had to be: for made-up students who do not know. */
export const guesses = [
  'not sure',
  'north',
  'the other one',
  'both',
  'it depends',
  'higher',
  '12',
  'the tide',
];

const shrugs = ['I don’t know', 'we did this when I was away', 'not sure, maybe the opposite', '?'];

/** Some of what the scheme and the model answer say, in the words of no one in particular; now and then a shrug. */
export function saidFrom(
  { modelAnswer, scheme }: { modelAnswer: string; scheme: readonly { text: string; points: number }[] },
  chance: Chance,
): string {
  const known = [
    ...scheme.filter(({ points }) => points > 0).map(({ text }) => text),
    ...modelAnswer.split(/(?<=[.;])\s+/),
  ].filter((text) => text.trim());
  const said = known.filter(() => chance.happens(0.4));
  return said.length > 0 ? said.join(' ') : chance.pick(shrugs);
}
