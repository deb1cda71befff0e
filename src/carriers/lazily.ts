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
    greet: async (...asked) => (await carrier()).greet(...asked),
    comeAsGuest: async (...asked) => (await carrier()).comeAsGuest(...asked),
    home: async (...asked) => (await carrier()).home(...asked),
    start: async (...asked) => (await carrier()).start(...asked),
    handOver: async (...asked) => (await carrier()).handOver(...asked),
    handOverFile: async (...asked) => (await carrier()).handOverFile(...asked),
    file: async (...asked) => (await carrier()).file(...asked),
    practise: async (...asked) => (await carrier()).practise(...asked),
    ask: async (...asked) => (await carrier()).ask(...asked),
    handIn: async (...asked) => (await carrier()).handIn(...asked),
    result: async (...asked) => (await carrier()).result(...asked),
    toHand: async (...asked) => (await carrier()).toHand(...asked),
  };
}
