/**
 * Every kind of question, in the order in which they are offered: the one list of them. `npm run kinds` makes the
 * registries from it, which give what each kind's folder holds.
 */
export const kindNames = [
  'oneChoice',
  'severalChoices',
  'trueFalse',
  'shortText',
  'number',
  'gaps',
  'matching',
  'ordering',
  'categories',
  'openText',
  'working',
  'file',
] as const;

export type KindName = (typeof kindNames)[number];
