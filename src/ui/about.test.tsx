// @vitest-environment jsdom
import { act, fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, it, vi } from 'vitest';
import { draw } from '../../tests/unit/screen';
import { KeptTextarea } from './KeptTextarea';
import { Moving, PlaceOf, useMoving } from './Moving';
import { PointsField } from './PointsField';

/** Fields that go from one thing to the next without being drawn anew (common practice, no source). */

it('words typed for one thing are kept for it and not shown for the next, even where it comes at once', () => {
  const kept: string[] = [];
  const Field = ({ about, value }: { about: string; value: string }) => (
    <KeptTextarea
      aria-label="Comment"
      about={about}
      value={value}
      onKeep={(text) => kept.push(`${about}: ${text}`)}
    />
  );
  vi.useFakeTimers();
  try {
    const { rerender } = draw(<Field about="first" value="" />);
    const field = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Comment' });
    fireEvent.change(field, { target: { value: 'the sector' } });
    rerender(<Field about="second" value="of the second" />);
    expect(kept).toEqual(['first: the sector']);
    expect(field.value).toBe('of the second');
    fireEvent.change(field, { target: { value: 'of the second!' } });
    rerender(<Field about="first" value="the sector" />);
    expect(kept.at(-1)).toBe('second: of the second!');
    expect(field.value).toBe('the sector');
    // The clocks of both run for nothing any more.
    act(() => vi.advanceTimersByTime(2_000));
    expect(kept).toHaveLength(2);
  } finally {
    vi.useRealTimers();
  }
});

it('the last letter is kept for what it was typed for when the next comes with it', () => {
  const kept: string[] = [];
  function Two() {
    const [about, setAbout] = useState('first');
    return (
      <KeptTextarea
        aria-label="Comment"
        about={about}
        value=""
        onKeep={(text) => kept.push(`${about}: ${text}`)}
        onTyping={() => setAbout('second')}
      />
    );
  }
  const { hand } = draw(<Two />);
  const field = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Comment' });
  return hand.type(field, 'x').then(() => {
    expect(kept).toEqual(['first: x']);
    expect(field.value).toBe('');
  });
});

it('a number that was refused for one thing is not said of the next', async () => {
  const Field = ({ about }: { about: string }) => (
    <PointsField label="Points" about={about} value={2} max={5} onPoints={vi.fn()} />
  );
  const { hand, rerender } = draw(<Field about="first" />);
  await hand.type(screen.getByRole('textbox', { name: 'Points' }), '99');
  await hand.tab();
  expect(screen.getByText('99: 0 to 5')).toBeTruthy();
  rerender(<Field about="second" />);
  expect(screen.queryByText('99: 0 to 5')).toBeNull();
});

it('what moves from place to place is the same on the way, and stands in one', () => {
  function Rows({ at }: { at: number }) {
    const host = useMoving();
    return (
      <>
        {['one', 'two', 'three'].map((name, index) => (
          <section key={name} aria-label={name}>
            {index === at && <PlaceOf host={host} />}
          </section>
        ))}
        <Moving host={host}>
          <input aria-label="Field" />
        </Moving>
      </>
    );
  }
  const { rerender } = draw(<Rows at={0} />);
  const field = screen.getByRole('textbox', { name: 'Field' });
  for (const [at, name] of ['one', 'two', 'three'].entries()) {
    rerender(<Rows at={at} />);
    expect(screen.getByRole('region', { name }).contains(field)).toBe(true);
  }
  // Where no place is drawn it stands nowhere, and comes back as it was.
  rerender(<Rows at={9} />);
  expect(screen.queryByRole('textbox', { name: 'Field' })).toBeNull();
  rerender(<Rows at={1} />);
  expect(screen.getByRole('textbox', { name: 'Field' })).toBe(field);
});
