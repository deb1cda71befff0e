import { ask, comeAsGuest, greet, home } from './entering';
import { fileFor, handOverFile } from './files';
import { messageList, saidIn, type DeskEnd, type MessageName } from './messageList';
import { requestSchemas } from './messages';
import type { ExchangeRepository } from './repository';
import { present } from './presence';
import { correct, result, scriptFor } from './result';
import { start } from './starting';
import { handIn, handOver, practise } from './working';

export { ask, comeAsGuest, fileFor, greet, handIn, handOver, handOverFile, home, practise, present };
export { correct, result, scriptFor, start };

/** What is replied to each message, wherever that is done: see `ExchangeRepository`. `now` is by the clock that rules. */
export const answers: {
  [M in MessageName]: (
    place: ExchangeRepository,
    ...said: [...Required<Parameters<DeskEnd[M]>>, now: number]
  ) => ReturnType<DeskEnd[M]>;
} = {
  greet,
  comeAsGuest,
  home,
  start,
  handOver,
  present,
  handOverFile,
  file: fileFor,
  practise,
  ask,
  handIn,
  result,
  correct,
};

/** The reply to a message whose parts are what its schema says. */
export function reply(
  place: ExchangeRepository,
  name: MessageName,
  said: readonly unknown[],
  now: number,
): Promise<unknown> {
  const answer = answers[name] as (place: ExchangeRepository, ...said: unknown[]) => Promise<unknown>;
  // What is left out at the end keeps its place.
  return answer(place, ...messageList[name].holds.map((_, at) => said[at]), now);
}

/**
 * The reply to a message from outside.
 *
 * @param named what it holds, by name
 * @throws {z.ZodError} where it does not hold what it should
 */
export const replyTo = (
  place: ExchangeRepository,
  name: MessageName,
  named: Readonly<Record<string, unknown>>,
  now: number,
): Promise<unknown> => reply(place, name, saidIn(name, requestSchemas[name].parse(named)), now);
