import { useEffect, useState, type ComponentType } from 'react';
import { Button } from '@/ui/plain/Button';
import type { SitProps } from './KindView';

/**
 * A field that is fetched for the papers that ask for it: what most papers do without is not sent to every phone. Once it
 * is here it is drawn at once; where it cannot be fetched, that question alone says so, and asks again.
 */
export function fetchedSit<S, R>(load: () => Promise<{ Sit: ComponentType<SitProps<S, R>> }>) {
  let Fetched: ComponentType<SitProps<S, R>> | null = null;
  const fetch = async () => {
    Fetched ??= (await load()).Sit;
  };
  function Sit(props: SitProps<S, R>) {
    const [state, setState] = useState<'fetching' | 'here' | 'failed'>(Fetched ? 'here' : 'fetching');
    useEffect(() => {
      if (state !== 'fetching') return;
      let drawn = true;
      const say = (next: 'here' | 'failed') => () => drawn && setState(next);
      void fetch().then(say('here'), say('failed'));
      return () => {
        drawn = false;
      };
    }, [state]);
    if (Fetched) return <Fetched {...props} />;
    if (state === 'fetching') return <p role="status">One moment…</p>;
    return (
      <p role="alert">
        The answer field couldn’t be loaded. What you typed is saved.{' '}
        <Button onClick={() => setState('fetching')}>Try again</Button>
      </p>
    );
  }
  return { fetch, Sit };
}
