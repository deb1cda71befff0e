import type { Carrier } from '@/carriers/Carrier';

/** A carrier of which only some calls are answered; for all others the desk is away. */
export function carrierWith(part: Partial<Carrier>): Carrier {
  const away = () => Promise.reject(new Error('the desk is away'));
  return {
    greet: away,
    comeAsGuest: away,
    home: away,
    start: away,
    handOver: away,
    present: away,
    handOverFile: away,
    file: away,
    practise: away,
    ask: away,
    handIn: away,
    result: away,
    correct: away,
    toHand: away,
    ...part,
  };
}
