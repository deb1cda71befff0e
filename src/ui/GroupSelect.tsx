import { NativeSelect } from '@mantine/core';
import type { Group } from '@/core/model/people';
import { guestsOnly, withoutGuests } from '@/core/model/names';

interface GroupSelectProps {
  groups: Group[];
  /** Whether there are guests, to be looked at apart. */
  guests?: boolean;
  /** Whether all together are without guests already. */
  guestsApart?: boolean;
  /** The id of the group, or one of the views beside groups; '' for all. */
  value: string;
  choose: (view: string) => void;
}

/** All groups of a sitting together, one of them, or guests apart. Nothing where there is no choice. */
export function GroupSelect({ groups, guests, guestsApart, value, choose }: GroupSelectProps) {
  if (groups.length < 2 && !guests) return null;
  const views = [
    { value: guestsOnly, label: 'Guests' },
    ...(guestsApart ? [] : [{ value: withoutGuests, label: 'Without guests' }]),
  ];
  return (
    <NativeSelect
      size="xs"
      aria-label="Group"
      value={value}
      onChange={(event) => choose(event.currentTarget.value)}
      data={[
        { value: '', label: guests && guestsApart ? 'All but guests' : 'All groups' },
        ...groups.map(({ id, name }) => ({ value: id, label: name })),
        ...(guests ? views : []),
      ]}
    />
  );
}
