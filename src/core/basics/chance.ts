import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { sum } from 'remeda';

/** Chance from a seed: the same seed gives the same demo, everywhere. */
export interface Chance {
  /** 0 up to, not including, 1. */
  share(): number;
  /** A whole number from `least` to `most`. */
  whole(least: number, most: number): number;
  /** One of them; with weights, in proportion to them. */
  pick<T>(from: readonly T[], weights?: readonly number[]): T;
  /** True with this probability. */
  happens(probability: number): boolean;
  /** About normal: mean 0, standard deviation 1. */
  normal(): number;
}

export function chanceFrom(seed: number): Chance {
  const generator = xoroshiro128plus(seed);
  const share = () => uniformFloat64(generator);
  const pick = <T>(from: readonly T[], weights?: readonly number[]): T => {
    const given = weights ?? from.map(() => 1);
    let left = share() * sum(given);
    const index = given.findIndex((weight) => (left -= weight) < 0);
    const picked = from[index < 0 ? from.length - 1 : index];
    if (picked === undefined) throw new RangeError('pick from nothing');
    return picked;
  };
  return {
    share,
    whole: (least, most) => least + Math.floor(share() * (most - least + 1)),
    pick,
    happens: (probability) => share() < probability,
    // The sum of twelve even shares less six: mean 0 and variance 1 by the central limit theorem.
    normal: () => Array.from({ length: 12 }, share).reduce((sum, value) => sum + value, -6),
  };
}
