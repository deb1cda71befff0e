import { element, type XmlElement } from './element';

/** Expressions of response processing (QTI 3.0 ASI, section 2.8), as they are used here. */

export const base = (baseType: string, value: string | number | boolean) =>
  element('baseValue', { baseType }, String(value));
export const variable = (identifier: string) => element('variable', { identifier });
export const correct = (identifier: string) => element('correct', { identifier });
export const mapResponse = (identifier: string) => element('mapResponse', { identifier });
export const match = (a: XmlElement, b: XmlElement) => element('match', {}, a, b);
export const member = (a: XmlElement, b: XmlElement) => element('member', {}, a, b);
export const sum = (...parts: XmlElement[]) => element('sum', {}, ...parts);
export const isNull = (a: XmlElement) => element('isNull', {}, a);
export const and = (...parts: XmlElement[]) => element('and', {}, ...parts);
export const gte = (a: XmlElement, b: XmlElement) => element('gte', {}, a, b);
export const lte = (a: XmlElement, b: XmlElement) => element('lte', {}, a, b);
export const lt = (a: XmlElement, b: XmlElement) => element('lt', {}, a, b);
export const gt = (a: XmlElement, b: XmlElement) => element('gt', {}, a, b);

export const setScore = (value: XmlElement) => element('setOutcomeValue', { identifier: 'SCORE' }, value);

/** The first branch whose condition is met sets the score. */
export function scoreBranches(branches: readonly { when: XmlElement; score: number }[]): XmlElement[] {
  if (branches.length === 0) return [];
  const parts = branches.map(({ when, score }, index) =>
    element(index === 0 ? 'responseIf' : 'responseElseIf', {}, when, setScore(base('float', score))),
  );
  return [element('responseCondition', {}, ...parts)];
}
