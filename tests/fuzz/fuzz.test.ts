import { describe, expect, it } from 'vitest';
import { chanceFrom } from '@/core/basics/chance';
import { mutatedBytes } from './mutate';
import { readers } from './readers';

/**
 * Files that were damaged, cut, put together wrongly or made by somebody hostile: each is refused in words that name it, or
 * read whole, so that what was read can be kept, saved and drawn. `npm run fuzz` tries 10,000 files; here it is a short form.
 * Every file has a seed of its own, which is named where one is found: FUZZ_SEED tries that one alone.
 */

const runs = Number(process.env.FUZZ_RUNS ?? 360);
const only = process.env.FUZZ_SEED;
const mostMs = 10_000;
const mostBytes = 300 * 1024 * 1024;

const taken = () => {
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  return heapUsed + arrayBuffers;
};

describe.each(await readers())('$name', ({ name, file, mutate = mutatedBytes, read }) => {
  it('as it is, is read', async () => {
    expect(await read(file)).not.toHaveProperty('refused');
  });

  const each = Math.ceil(runs / 12);
  it(
    `${each} times spoilt, is refused with a name or read whole`,
    { timeout: 120_000 + each * 1000 },
    async () => {
      const original = await read(file);
      let refused = 0;
      for (let run = 0; run < each; run++) {
        const seed = only ? Number(only) : 1 + run;
        const spoilt = mutate(file, chanceFrom(seed));
        const [start, before] = [performance.now(), taken()];
        const outcome = await read(spoilt).catch((error: unknown) => {
          throw new Error(`${name}, seed ${seed}`, { cause: error });
        });
        const place = `${name}, seed ${seed}`;
        expect(performance.now() - start, place).toBeLessThan(mostMs);
        expect(taken() - before, place).toBeLessThan(mostBytes);
        if ('refused' in outcome) {
          refused++;
          expect(outcome.refused.length, place).toBeGreaterThan(5);
        } else if ('same' in outcome) expect(outcome, place).toEqual(original);
        if (only) break;
      }
      // A reader that refuses nothing, or everything, is not tried at all.
      if (!only && each > 20 && name.endsWith('.zip')) expect(refused).toBeGreaterThan(0);
    },
  );
});
