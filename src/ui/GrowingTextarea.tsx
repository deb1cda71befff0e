import { Textarea, type TextareaProps } from '@mantine/core';
import { forwardRef, type CSSProperties } from 'react';
import { sizesFields } from './sizesFields';

interface GrowingTextareaProps extends Omit<TextareaProps, 'autosize' | 'styles'> {
  minRows?: number;
  maxRows?: number;
}

/**
 * A field for lines of text, as high as they are. Where the browser does that by itself it is left to it: measured in script,
 * each such field costs a view several passes of style and layout whenever anything in it is drawn.
 */
export const GrowingTextarea = forwardRef<HTMLTextAreaElement, GrowingTextareaProps>(function GrowingTextarea(
  { minRows = 1, maxRows, ...rest },
  ref,
) {
  if (!sizesFields())
    return <Textarea {...rest} ref={ref} autosize minRows={minRows} {...(maxRows && { maxRows })} />;
  return <Textarea {...rest} ref={ref} styles={{ input: sizing(minRows, maxRows) }} />;
});

/** Rows of text with the field's own padding and borders around them. As wide as there is room, never wider for what is in it. */
function sizing(minRows: number, maxRows: number | undefined): CSSProperties {
  const rows = (count: number) => `calc(${count} * 1lh + 2 * var(--input-padding-y) + 2px)`;
  return {
    fieldSizing: 'content',
    width: 0,
    minWidth: '100%',
    minHeight: rows(minRows),
    ...(maxRows === undefined ? { overflow: 'hidden' } : { maxHeight: rows(maxRows) }),
  };
}
