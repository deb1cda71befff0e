import { FileButton as Choose, type FileButtonProps } from '@mantine/core';
import { useRef } from 'react';

/** Chooses a file; the same one can be chosen again, as when it was mended and is to be read anew. */
export function FileButton<Multiple extends boolean = false>(props: FileButtonProps<Multiple>) {
  const reset = useRef<() => void>(null);
  const { onChange } = props;
  return (
    <Choose
      {...props}
      resetRef={reset}
      onChange={(files) => {
        onChange(files);
        reset.current?.();
      }}
    />
  );
}
