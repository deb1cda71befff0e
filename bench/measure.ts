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
