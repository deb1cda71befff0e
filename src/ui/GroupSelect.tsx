import { NativeSelect } from '@mantine/core';
import type { Group } from '@/core/model/people';

interface GroupSelectProps {
  groups: Group[];
  /** The id of the group; '' for all. */
  value: string;
  choose: (groupId: string) => void;
}

/** All groups of a sitting together, or one of them. Nothing where there is only one. */
export function GroupSelect({ groups, value, choose }: GroupSelectProps) {
  if (groups.length < 2) return null;
  return (
    <NativeSelect
      size="xs"
      aria-label="Group"
      value={value}
      onChange={(event) => choose(event.currentTarget.value)}
      data={[
        { value: '', label: 'All groups' },
        ...groups.map(({ id, name }) => ({ value: id, label: name })),
      ]}
    />
  );
}
