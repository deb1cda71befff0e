// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { later } from './later';

afterEach(cleanup);

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
