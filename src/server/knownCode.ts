import type { ExchangeRepository } from '@/core/exchange/repository';
import { joinCodeAlphabet, joinCodeFrom } from '@/core/basics/joinCode';
import type { Asked } from './endpoint';
import type { AllGuesses } from './guesses';
import { Refused } from './respond';

const shape = new RegExp(`^[${joinCodeAlphabet}]{6}$`);

/**
 * A join code that somebody has. A device that came in with it before is never stopped. A wrong one is counted against
 * where it comes from, unless it is one letter from somebody's code: that is a slip of the keys, counted against that code,
 * until there are too many of them. What cannot be a code at all tells a guesser nothing, and is not counted.
 *
 * @param passed whether the device came in with this code before
 * @throws {Refused} nobody has it, or guessing is stopped
 */
export async function knownCode(
  place: ExchangeRepository,
  guesses: Pick<AllGuesses, 'codes' | 'near'>,
  { from, now }: Asked,
  joinCode: string,
  passed: (code: string) => boolean,
): Promise<string> {
  const code = joinCodeFrom(joinCode);
  if (!shape.test(code)) throw new Refused('notFound', 'joinCode');
  const whose = async () => (await place.studentWith(code)) ?? null;
  if (passed(code)) {
    if (await whose()) return code;
    throw new Refused('notFound', 'joinCode');
  }
  const slip = async () => {
    const meant = await nearCode(place, code);
    if (meant === null) return false;
    try {
      await guesses.near.check(meant);
    } catch {
      return false;
    }
    await guesses.near.counted(meant, now, code);
    return true;
  };
  const found = await guesses.codes.look(from, now, code, async () =>
    (await whose()) ? 'right' : (await slip()) ? 'slip' : null,
  );
  if (found !== 'right') throw new Refused('notFound', 'joinCode');
  return code;
}

/** Somebody's code from which this one differs in one letter, or in two neighbours the wrong way round; null: nobody's. */
async function nearCode(place: ExchangeRepository, code: string): Promise<string | null> {
  for (const other of neighbours(code)) if (await place.studentWith(other)) return other;
  return null;
}

function* neighbours(code: string): Generator<string> {
  for (let at = 0; at < code.length; at++) {
    const [before, after] = [code.slice(0, at), code.slice(at + 1)];
    for (const letter of joinCodeAlphabet) if (letter !== code[at]) yield before + letter + after;
    if (after) yield before + after.charAt(0) + code.charAt(at) + after.slice(1);
  }
}
