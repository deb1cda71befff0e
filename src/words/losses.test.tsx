// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { samples } from '../../tests/unit/samples';
import { draw } from '../../tests/unit/screen';
import { qtiPackage } from '@/core/formats/qti/writePackage';
import type { Question } from '@/core/kinds';
import { LossList } from '@/ui/LossList';
import { lossesByPlace, lossWords, refusalWords } from './losses';

describe('what could not be carried', () => {
  const losses = [
    { place: 'Question 2', code: 'onlyHere' as const, detail: 'units' },
    { place: 'Question 7', code: 'picture' as const, detail: 'far.png' },
    { place: 'Question 2', code: 'onlyHere' as const, detail: 'figures' },
  ];

  it('stands together by its place, in the order it was met', () => {
    expect(lossesByPlace(losses).map(([place, said]) => [place, said.length])).toEqual([
      ['Question 2', 2],
      ['Question 7', 1],
    ]);
    draw(<LossList losses={losses} label="Not carried" />);
    const list = screen.getByRole('region', { name: 'Not carried' });
    expect(within(list).getByText('only Gribbet reads its asking for figures')).toBeTruthy();
    expect(within(list).getByText(/^the picture far\.png isn’t in the package/)).toBeTruthy();
  });

  it('nothing is said where nothing was lost', () => {
    draw(<LossList losses={[]} label="Not carried" />);
    expect(screen.queryByRole('region')).toBeNull();
  });

  // A field without words of its own would be read as the name it has in the code.
  it('every field that other programs do not read has a name in words', () => {
    const everything: Question[] = [
      ...Object.values(samples),
      {
        ...samples.shortText,
        hints: [{ id: 'h', text: 'Look at the chart', cost: 0.5 }],
        working: { keyShare: 0.5, modelAnswer: '', scheme: [], ways: ['drawing'] },
        acceptsNearMisses: true,
        link: { href: 'https://example.org', text: '' },
        commentPart: 'nearly',
      } as Question,
      { ...samples.severalChoices, rule: 'everyOption' } as Question,
      { ...samples.number, figures: { of: 'decimals', count: 1, cost: 0.5 } } as Question,
    ];
    const written = qtiPackage({ title: 'T', instructions: '', questions: everything, wantedPoints: 50 }, []);
    const said = written.losses.map(lossWords);
    expect(said.length).toBeGreaterThan(10);
    for (const words of said) expect(words).toMatch(/ /);
    const fields = written.losses.filter(({ code }) => code === 'onlyHere');
    for (const loss of fields)
      if (/[A-Z]/.test(loss.detail)) expect(lossWords(loss)).not.toContain(loss.detail);
  });

  it('a package that is refused says why, where, and that nothing changed', () => {
    expect(refusalWords({ why: 'script', place: 'items/1.xml', detail: '<script>' })).toBe(
      'A file in it contains something that could run as a program. (items/1.xml: <script>) Nothing was changed.',
    );
    expect(refusalWords({ why: 'notZip', place: '', detail: '' })).toBe(
      'It isn’t a zip file, or it is damaged. Nothing was changed.',
    );
  });
});
