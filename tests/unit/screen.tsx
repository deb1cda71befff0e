import { MantineProvider } from '@mantine/core';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactElement } from 'react';
import { expect } from 'vitest';
import { theme } from '@/ui/theme';

/** Draws a part of the interface in jsdom, with a hand to use it. */
export function draw(element: ReactElement) {
  const hand = userEvent.setup();
  return { hand, ...render(element, { wrapper: Wrapper }) };
}

/** Waits for what is fetched only where it is needed. */
export const fetched = () => waitFor(() => expect(screen.queryByText('One moment…')).toBeNull());

function Wrapper({ children }: { children: React.ReactNode }) {
  return (
    <MantineProvider theme={theme} env="test">
      {children}
    </MantineProvider>
  );
}
