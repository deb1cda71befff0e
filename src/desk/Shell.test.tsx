// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { Button } from '@mantine/core';
import { render, screen } from '@testing-library/react';
import { memo } from 'react';
import { expect, it, vi } from 'vitest';
import { Shell } from './Shell';

vi.mock('./usePlansKept', () => ({ usePlansKept: () => undefined }));
vi.mock('./ElsewhereBar', () => ({ ElsewhereBar: () => null }));
vi.mock('./NewVersion', () => ({ NewVersion: () => null }));

it('what a page draws anew does not draw what of the library has not changed', () => {
  let drawn = 0;
  const Steady = memo(function Steady() {
    return (
      <Button
        // Read whenever the button is drawn, also where it is drawn past this component.
        vars={() => (drawn++, { root: {} })}
      >
        Steady
      </Button>
    );
  });
  const page = (words: string) => (
    <Shell>
      <p>{words}</p>
      <Steady />
    </Shell>
  );
  const { rerender } = render(page('one'));
  const before = drawn;
  expect(before).toBeGreaterThan(0);
  rerender(page('two'));
  expect(screen.getByText('two')).toBeTruthy();
  expect(drawn).toBe(before);
});
