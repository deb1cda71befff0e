import { useRef } from 'react';

interface FileButtonProps<Multiple extends boolean = false> {
  onChange: (chosen: Multiple extends true ? File[] : File | null) => void;
  /** Which files the dialog offers, as the `accept` of HTML. */
  accept?: string;
  multiple?: Multiple;
  disabled?: boolean;
  inputProps?: React.ComponentProps<'input'>;
  children: (button: { onClick: () => void }) => React.ReactNode;
}

/** Chooses a file; the same one can be chosen again, as when it was mended and is to be read anew. */
export function FileButton<Multiple extends boolean = false>({
  onChange,
  accept,
  multiple,
  disabled,
  inputProps,
  children,
}: FileButtonProps<Multiple>) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        hidden
        {...inputProps}
        accept={accept}
        multiple={multiple}
        disabled={disabled}
        onChange={({ currentTarget }) => {
          const chosen = [...(currentTarget.files ?? [])];
          // What is chosen is as many as `multiple` says.
          onChange((multiple ? chosen : (chosen[0] ?? null)) as Parameters<typeof onChange>[0]);
          currentTarget.value = '';
        }}
      />
      {children({ onClick: () => input.current?.click() })}
    </>
  );
}
