import { MantineProvider } from '@mantine/core';
import { render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactElement } from 'react';
import { theme } from '@/ui/theme';

/** Draws a part of the interface in jsdom, with a hand to use it. */
export function draw(element: ReactElement) {
  const hand = userEvent.setup();
  return { hand, ...render(element, { wrapper: Wrapper }) };
}

function Wrapper({ children }: { children: React.ReactNode }) {
  return (
    <MantineProvider theme={theme} env="test">
      {children}
    </MantineProvider>
  );
}
