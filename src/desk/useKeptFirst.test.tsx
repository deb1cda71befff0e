// @vitest-environment jsdom
import { createEvent, fireEvent, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { draw } from '../../tests/unit/screen';
import { KeptTextarea } from '@/ui/KeptTextarea';
import { act } from './act';
import { useKeptFirst } from './useKeptFirst';

let finish: () => void = () => undefined;

/** A command that is being kept until `finish`. */
const slow = () => act(new Promise<void>((done) => (finish = done)));

function Links() {
  useKeptFirst();
  return (
    <>
      <a href="#next">on</a>
      <a href="https://example.org/">away</a>
      <a href="#apart" target="_blank" rel="noreferrer">
        apart
      </a>
    </>
  );
}

/** Whether following a link is held back. */
function held(name: string, keys: { ctrlKey?: boolean } = {}): boolean {
  const link = screen.getByRole('link', { name });
  const click = createEvent.click(link, keys);
  fireEvent(link, click);
  return click.defaultPrevented;
}

afterEach(() => finish());

describe('leaving by a link', () => {
  it('waits for what is being kept, and goes on by itself then', async () => {
    draw(<Links />);
    const kept = slow();
    expect(held('on')).toBe(true);
    expect(window.location.hash).toBe('');
    finish();
    await kept;
    await expect.poll(() => window.location.hash).toBe('#next');
  });

  it('goes at once when everything is kept, even after a fault', async () => {
    draw(<Links />);
    expect(held('on')).toBe(false);
    await act(Promise.reject(new Error('disk full')));
    expect(held('on')).toBe(false);
  });

  it('what opens apart, or leads elsewhere, is not held back', () => {
    draw(<Links />);
    void slow();
    expect(held('apart')).toBe(false);
    expect(held('away')).toBe(false);
    expect(held('on', { ctrlKey: true })).toBe(false);
  });

  it('left by its address while something is being kept, the browser asks; else it does not', async () => {
    draw(<Links />);
    const asks = () => {
      const event = new Event('beforeunload', { cancelable: true });
      window.dispatchEvent(event);
      return event.defaultPrevented;
    };
    expect(asks()).toBe(false);
    const kept = slow();
    expect(asks()).toBe(true);
    finish();
    await kept;
    expect(asks()).toBe(false);
  });

  it('what is still being typed is written as the page is left, before it is asked', () => {
    draw(
      <>
        <Links />
        <KeptTextarea aria-label="Comment" value="" onKeep={() => void slow()} />
      </>,
    );
    fireEvent.change(screen.getByLabelText('Comment'), { target: { value: 'half a word' } });
    const event = new Event('beforeunload', { cancelable: true });
    window.dispatchEvent(event);
    expect(event.defaultPrevented).toBe(true);
  });
});
