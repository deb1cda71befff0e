import { Button, Text } from '@mantine/core';
import { useEffect, useState } from 'react';
import { canKeep, isDeskKept, keepDesk } from '@/offline/kept';

type Kept = 'no' | 'yes' | 'failed' | { done: number; of: number };

/** Whether Gribbet opens in this browser with no server in reach, and the way to have it so. */
export function WithoutNetwork() {
  const [kept, setKept] = useState<Kept | null>(null);
  useEffect(() => {
    void isDeskKept().then((is) => setKept(is ? 'yes' : 'no'));
  }, []);
  const keep = async () => {
    setKept({ done: 0, of: 0 });
    const all = await keepDesk((done, of) => setKept({ done, of })).catch(() => false);
    setKept(all ? 'yes' : 'failed');
  };
  if (!canKeep())
    return (
      <Text size="sm">
        To open Gribbet without a network, use it over HTTPS, or on the computer that it runs on.
      </Text>
    );
  if (kept === null) return null;
  return (
    <div role="status">
      {kept === 'yes' && <Text size="sm">Gribbet opens in this browser without a network, too.</Text>}
      {kept === 'failed' && (
        <Text size="sm">Not everything could be fetched. Check the connection and try again.</Text>
      )}
      {typeof kept === 'object' && (
        <Text size="sm">
          Fetching what is needed without a network: {kept.done} of {kept.of || '…'}
        </Text>
      )}
      {(kept === 'no' || kept === 'failed') && (
        <Button size="compact-sm" onClick={() => void keep()}>
          Make it work without a network
        </Button>
      )}
    </div>
  );
}
