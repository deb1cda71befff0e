import { TextInput } from '@mantine/core';
import type { CourseNames } from '@/core/sittings/deskOrder';

interface CourseFieldsProps {
  names: CourseNames;
  change: (names: CourseNames) => void;
  /** What the course is good for, or what holds without one. */
  about: string;
}

/** What a group or a sitting belongs to: two words that the desk is ordered by. */
export function CourseFields({ names, change, about }: CourseFieldsProps) {
  return (
    <>
      <TextInput
        label="Course"
        description={`Optional. ${about}`}
        size="sm"
        maxLength={200}
        value={names.course}
        onChange={(event) => change({ ...names, course: event.currentTarget.value })}
      />
      <TextInput
        label="Term"
        description="Optional."
        size="sm"
        maxLength={200}
        value={names.term}
        onChange={(event) => change({ ...names, term: event.currentTarget.value })}
      />
    </>
  );
}
