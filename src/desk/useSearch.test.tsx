// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { spotlight } from '@mantine/spotlight';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ReactElement } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { useWord } from './act';
import { useSearch } from './useSearch';

afterEach(cleanup);

// Read from disk here, which may take longer than a teacher waits for it from the server.
const fetched = import('./Search');
const fromHere = () => fetched;

function Frame() {
  const { Search, openSearch } = useSearch(fromHere);
  return (
    <>
      <button type="button" onClick={openSearch}>
        Find
      </button>
      {Search && <Search />}
    </>
  );
}

it('search opens by its key before it was fetched, and gives the focus back', async () => {
  await fetched;
  render(
    <MantineProvider env="test">
      <Frame />
    </MantineProvider>,
  );
  const button = screen.getByRole('button', { name: 'Find' });
  act(() => button.focus());
  expect(screen.queryByRole('textbox', { name: 'Search' })).toBeNull();
  const onPage = vi.fn();
  document.addEventListener('keydown', onPage);
  fireEvent.keyDown(button, { key: 'k', code: 'KeyK', ctrlKey: true });
  onPage.mockClear();
  // A letter of what is looked for is no key of the page.
  expect(fireEvent.keyDown(button, { key: 'a', code: 'KeyA' })).toBe(false);
  expect(onPage).not.toHaveBeenCalled();
  const field = await screen.findByRole('textbox', { name: 'Search' }, { timeout: 20_000 });
  fireEvent.keyDown(field, { key: 'Escape' });
  await waitFor(() => expect(screen.queryByRole('textbox', { name: 'Search' })).toBeNull());
  await waitFor(() => expect(document.activeElement).toBe(button));
  fireEvent.keyDown(button, { key: 'a', code: 'KeyA' });
  expect(onPage).toHaveBeenCalled();
  document.removeEventListener('keydown', onPage);
  // And again, now that it is here.
  fireEvent.click(button);
  expect(await screen.findByRole('textbox', { name: 'Search' })).toBeTruthy();
});

describe('where search cannot be fetched', () => {
  it('is said after a moment; the page has its keys again, and search does not open by itself later', async () => {
    let arrive: () => void = () => undefined;
    const coming = new Promise<{ Search: () => ReactElement }>((done) => {
      arrive = () => done({ Search: () => <p>Search is here</p> });
    });
    const slowly = () => coming;
    const opened = vi.spyOn(spotlight, 'open');
    function SlowFrame() {
      const { Search, openSearch } = useSearch(slowly);
      return (
        <>
          <button type="button" onClick={openSearch}>
            Find
          </button>
          {Search && <Search />}
          <p role="status">{useWord()?.text}</p>
        </>
      );
    }
    vi.useFakeTimers({ shouldAdvanceTime: true });
    try {
      render(
        <MantineProvider env="test">
          <SlowFrame />
        </MantineProvider>,
      );
      const button = screen.getByRole('button', { name: 'Find' });
      fireEvent.click(button);
      expect(fireEvent.keyDown(button, { key: 'a', code: 'KeyA' })).toBe(false);
      await act(() => vi.advanceTimersByTimeAsync(3_100));
      expect(screen.getByRole('status').textContent).toBe('Search couldn’t be loaded. Try again.');
      expect(fireEvent.keyDown(button, { key: 'a', code: 'KeyA' })).toBe(true);
      arrive();
      expect(await screen.findByText('Search is here')).toBeTruthy();
      expect(opened).not.toHaveBeenCalled();
    } finally {
      vi.useRealTimers();
    }
  });
});
