import { Button } from '@mantine/core';
import { useState, type ComponentProps } from 'react';
import { TextMarker } from './TextMarker';

/** Marks on the text of one answer, opened by a button. */
export function TextMarks(props: Omit<ComponentProps<typeof TextMarker>, 'done'>) {
  const [open, setOpen] = useState(false);
  if (open) return <TextMarker {...props} done={() => setOpen(false)} />;
  return (
    <div>
      <Button size="compact-sm" onClick={() => setOpen(true)}>
        Mark the text
      </Button>
    </div>
  );
}
