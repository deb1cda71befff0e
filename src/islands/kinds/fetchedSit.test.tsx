// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { draw } from '../../../tests/unit/screen';
import { fetchedSit } from './fetchedSit';

const field = { Sit: () => <input aria-label="Sort by" /> };
const props = { question: {}, response: null, respond: () => undefined, labelledBy: 'stem' };

describe('a field that is fetched where a paper asks for it', () => {
  it('is drawn at once when it was fetched before', async () => {
    const { Sit, fetch } = fetchedSit(() => Promise.resolve(field));
    await fetch();
    draw(<Sit {...props} />);
    expect(screen.getByLabelText('Sort by')).toBeTruthy();
  });

  it('that cannot be fetched says so, beside questions that go on, and can be asked for again', async () => {
    const load = vi.fn(() => Promise.resolve(field)).mockRejectedValueOnce(new Error('no line'));
    const { Sit } = fetchedSit(load);
    const { hand } = draw(
      <>
        <Sit {...props} />
        <input aria-label="Another question" />
      </>,
    );
    expect((await screen.findByRole('alert')).textContent).toMatch(/couldn’t be loaded/);
    expect(screen.getByLabelText('Another question')).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByLabelText('Sort by')).toBeTruthy();
  });
});
