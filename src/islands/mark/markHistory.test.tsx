// @vitest-environment jsdom
import { render, screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { at, markOf } from '../../../tests/unit/samples';
import { changedMark } from '@/core/model/mark';
import { MarkHistory } from './MarkHistory';

const step = (minutes: number, why = '') => ({
  at: new Date(Date.parse(at) + minutes * 60_000).toISOString(),
  by: 'teacher',
  why,
});
const scheme = [
  { id: 'l1', text: 'Names the light', points: 1 },
  { id: 'l2', text: 'Says its colour', points: 1 },
];

it('says what each change did, the latest first, and what was done to several at once as one', () => {
  const marks = ['a1', 'a2'].map((attemptId) =>
    changedMark(markOf({ attemptId }), { points: 2, lines: ['l2'] }, step(0)),
  );
  const [first, second] = marks;
  if (!first || !second) throw new Error('two marks');
  const alone = changedMark(second, { points: 1, comment: 'Look again' }, step(9, 'Too kind'));
  render(<MarkHistory marks={[first, alone]} scheme={scheme} />);
  expect(screen.getByText('Mark history (2)')).toBeDefined();
  const rows = [...document.querySelectorAll('li')].map(({ textContent }) => textContent);
  expect(rows[0]).toMatch(/you, 1 answer2 points → 1 point; comment: Look again “Too kind”$/);
  expect(rows[1]).toMatch(/you, 2 answers2 points; scheme lines B$/);
});

it('is not there where nothing was marked', () => {
  render(<MarkHistory marks={[]} scheme={[]} />);
  expect(document.body.textContent).toBe('');
});
