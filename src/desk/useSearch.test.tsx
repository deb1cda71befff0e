// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { useSearch } from './useSearch';

function Frame() {
  const { Search, openSearch } = useSearch();
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
