import { chromium, type Browser } from '@playwright/test';

/** The median time of `runs` runs, in ms. */
export async function median(runs: number, work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let run = 0; run < runs; run++) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return middle(times);
}

export function middle(times: readonly number[]): number {
  return [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? Number.NaN;
}

/** One row of the table that docs/benchmarks.md holds. */
export function row(what: string, figure: string): void {
  console.log(`| ${what} | ${figure} |`);
}

/** Chromium as the benches drive it. */
export const launched = (...more: string[]): Promise<Browser> =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      ...more,
    ],
  });
