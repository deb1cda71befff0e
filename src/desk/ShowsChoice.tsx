import { Checkbox } from '@mantine/core';
import { showWords } from '@/words/releases';
import { isShown, shownThings, type Shown, type Shows } from '@/core/model/release';

interface ShowsChoiceProps {
  shows: Shows;
  setShows: (shows: Shows) => void;
  /** What is not offered, since it can never be seen here. */
  without?: readonly Shown[];
}

/** What of a result is let out, each by its own box. */
export function ShowsChoice({ shows, setShows, without = [] }: ShowsChoiceProps) {
  return shownThings
    .filter((what) => !without.includes(what))
    .map((what) => (
      <Checkbox
        key={what}
        size="sm"
        label={showWords[what]}
        checked={isShown(shows, what)}
        onChange={(event) => setShows({ ...shows, [what]: event.currentTarget.checked })}
      />
    ));
}
