import { Button } from '@mantine/core';
import { useState, type ComponentProps, type ReactNode } from 'react';
import { LayerMarker } from './LayerMarker';
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

interface LayerMarksProps extends Omit<ComponentProps<typeof LayerMarker>, 'done'> {
  children: ReactNode;
}

/** Marks on what was drawn, photographed or handed in as a file, opened by a button. */
export function LayerMarks({ change, children }: LayerMarksProps) {
  const [open, setOpen] = useState(false);
  if (open)
    return (
      <LayerMarker change={change} done={() => setOpen(false)}>
        {children}
      </LayerMarker>
    );
  return (
    <div>
      {children}
      <Button size="compact-sm" onClick={() => setOpen(true)}>
        Mark on it
      </Button>
    </div>
  );
}
