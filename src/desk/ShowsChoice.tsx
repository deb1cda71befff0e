import { Checkbox } from '@mantine/core';
import { showWords } from '@/words/releases';
import type { Shows } from '@/core/model/release';

/** What of a result is let out, each by its own box. */
export function ShowsChoice({ shows, setShows }: { shows: Shows; setShows: (shows: Shows) => void }) {
  return (Object.keys(showWords) as (keyof Shows)[]).map((what) => (
    <Checkbox
      key={what}
      size="sm"
      label={showWords[what]}
      checked={shows[what]}
      onChange={(event) => setShows({ ...shows, [what]: event.currentTarget.checked })}
    />
  ));
}
