// @vitest-environment jsdom
import { cleanup, render, renderHook, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { later } from './later';
import { useSoonHere } from './useSoonHere';

afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const Part = ({ name }: { name: string }) => <p>Part of {name}</p>;

it('is fetched once, when the first is to be seen, and gets what it is given', async () => {
  const load = vi.fn(async () => Part);
  const Later = later(load);
  expect(load).not.toHaveBeenCalled();
  render(
    <>
      <Later name="one" />
      <Later name="two" />
      <p>The rest</p>
    </>,
  );
  expect(screen.getByText('The rest')).toBeTruthy();
  expect(await screen.findByText('Part of one')).toBeTruthy();
  expect(screen.getByText('Part of two')).toBeTruthy();
  expect(load).toHaveBeenCalledOnce();
});

it('says in its place that it can’t be fetched; the rest of the page stays', async () => {
  const Later = later<{ name: string }>(() => Promise.reject(new Error('gone')), 'It couldn’t be loaded.');
  render(
    <>
      <Later name="one" />
      <p>The rest</p>
    </>,
  );
  expect((await screen.findByRole('alert')).textContent).toBe('It couldn’t be loaded.');
  expect(screen.getByText('The rest')).toBeTruthy();
});

it('is here soon after the page stands, before it is to be seen; where that failed it is asked for again', async () => {
  vi.useFakeTimers();
  const load = vi.fn(async () => Part).mockRejectedValueOnce(new Error('gone'));
  const parts = [later(load)];
  const page = renderHook(() => useSoonHere(parts));
  page.rerender();
  vi.advanceTimersByTime(1_900);
  expect(load).not.toHaveBeenCalled();
  await vi.advanceTimersByTimeAsync(200);
  expect(load).toHaveBeenCalledOnce();
  vi.useRealTimers();
  const [Later] = parts;
  render(Later ? <Later name="one" /> : null);
  expect(await screen.findByText('Part of one')).toBeTruthy();
  expect(load).toHaveBeenCalledTimes(2);
});

it('is not fetched for a page that was left', () => {
  vi.useFakeTimers();
  const load = vi.fn(async () => Part);
  const parts = [later(load)];
  renderHook(() => useSoonHere(parts)).unmount();
  vi.advanceTimersByTime(10_000);
  expect(load).not.toHaveBeenCalled();
});
