// @vitest-environment jsdom
import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import { PileBlock, type PileActs } from './PileBlock';

const entryNamed = (name: string) =>
  ({ pile: { id: 'p', name, agreed: true, members: [] }, heads: true }) as unknown as AnswerEntry;

describe('the name of a pile', () => {
  const name = vi.fn();
  const acts = { name } as unknown as PileActs;
  const block = (kept: string) => (
    <MantineProvider>
      <button type="button" data-row={0} tabIndex={0}>
        An answer
      </button>
      <PileBlock entry={entryNamed(kept)} acts={acts} />
    </MantineProvider>
  );
  const field = () => screen.getByRole<HTMLInputElement>('textbox', { name: /Name of the pile/ });
  const type = (value: string) => {
    field().focus();
    fireEvent.change(field(), { target: { value } });
  };
  beforeEach(() => name.mockClear());

  it('is kept by Enter, which goes back to the answers', () => {
    render(block('cones'));
    type(' two cones ');
    fireEvent.keyDown(field(), { key: 'Enter' });
    expect(name.mock.calls).toEqual([['two cones']]);
    expect(document.activeElement?.textContent).toBe('An answer');
  });

  it('Escape keeps nothing, and shows the old one again', () => {
    render(block('cones'));
    type('two');
    fireEvent.keyDown(field(), { key: 'Escape' });
    expect(name).not.toHaveBeenCalled();
    expect(field().value).toBe('cones');
    expect(document.activeElement?.textContent).toBe('An answer');
  });

  it('another name that comes while one is typed does not take the letters away; once it is left it shows', () => {
    const { rerender } = render(block('cones'));
    type('two');
    rerender(block('baskets'));
    expect(field().value).toBe('two');
    fireEvent.blur(field());
    expect(name.mock.calls).toEqual([['two']]);
    rerender(block('two'));
    rerender(block('cones'));
    expect(field().value).toBe('cones');
  });
});
