import { askedBy } from '@/core/exchange/messageList';
import type { Carrier } from './Carrier';

/** The carrier of a student's page, fetched when it is first asked: the form for the code stands before it. */
export function chosenLazily(): Carrier {
  let loading: Promise<Carrier> | null = null;
  const carrier = () =>
    (loading ??= import('./chosen').then(
      ({ chosenCarrier }) => chosenCarrier(),
      (error: unknown) => {
        loading = null;
        throw error;
      },
    ));
  return {
    ...askedBy(async (name, said) =>
      ((await carrier())[name] as (...said: unknown[]) => Promise<unknown>)(...said),
    ),
    toHand: async (...asked) => (await carrier()).toHand(...asked),
  };
}
