// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
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
  fireEvent.keyDown(button, { key: 'k', code: 'KeyK', ctrlKey: true });
  const field = await screen.findByRole('textbox', { name: 'Search' }, { timeout: 20_000 });
  fireEvent.keyDown(field, { key: 'Escape' });
  await waitFor(() => expect(screen.queryByRole('textbox', { name: 'Search' })).toBeNull());
  await waitFor(() => expect(document.activeElement).toBe(button));
  // And again, now that it is here.
  fireEvent.click(button);
  expect(await screen.findByRole('textbox', { name: 'Search' })).toBeTruthy();
});
