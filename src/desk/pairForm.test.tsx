// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { ServerFault } from '@/core/exchange/serverFault';
import type { ServerConnection } from '@/sync/serverConnection';
import { PairForm } from './PairForm';

it('a secret that is not taken is said, and the focus is where it is changed', async () => {
  const server = { pair: () => Promise.reject(new ServerFault('wrongSecret')) };
  render(
    <MantineProvider env="test">
      <PairForm server={server as unknown as ServerConnection} />
    </MantineProvider>, // as much of a connection as is used
  );
  const field = screen.getByLabelText('The teacher’s secret');
  fireEvent.change(field, { target: { value: 'not the secret at all' } });
  const button = screen.getByRole('button', { name: 'Pair browser' });
  button.focus();
  fireEvent.click(button);
  await waitFor(() => expect(button.getAttribute('data-loading')).toBe('true'));
  await screen.findByText('That isn’t this server’s secret.');
  expect(document.activeElement).toBe(field);
  await waitFor(() => expect(button.hasAttribute('disabled')).toBe(false));
});
