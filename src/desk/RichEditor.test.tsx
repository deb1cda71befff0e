// @vitest-environment jsdom
import { MantineProvider } from '@mantine/core';
import { render, screen, waitFor } from '@testing-library/react';
import type { Editor } from '@tiptap/core';
import { useLayoutEffect, useState } from 'react';
import { expect, it, vi } from 'vitest';
import type { RichText } from '@/core/basics/richText';
import { plainText } from '@/core/basics/richWords';
import RichEditor from './RichEditor';

vi.mock('../ui/files', () => ({ useFiles: () => ({ put: vi.fn() }) }));

/** The editor of the only field there is; it stands at its element. */
const editorThere = () => (screen.getByRole('textbox') as HTMLElement & { editor: Editor }).editor;

/** With markup: a text without any is kept as its letters alone. */
const ebb: RichText = {
  type: 'doc',
  content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Ebb', marks: [{ type: 'bold' }] }] }],
};

it('what is typed while an older value is drawn is not taken back, nor is the place in the text', async () => {
  const drawn: RichText[] = [];
  let older: (value: RichText) => void = () => undefined;
  let typeWith: RichText | null = null;
  function Field() {
    const [value, setValue] = useState<RichText>(ebb);
    useLayoutEffect(() => {
      older = setValue;
      if (value !== typeWith) return;
      // A key comes as soon as the older value is drawn.
      typeWith = null;
      editorThere().commands.insertContentAt(5, ' and flow');
      editorThere().commands.setTextSelection(3);
    }, [value]);
    drawn.push(value);
    return <RichEditor id="stem" label="Text" value={value} change={setValue} />;
  }
  render(
    <MantineProvider>
      <Field />
    </MantineProvider>,
  );
  await waitFor(() => expect(screen.getByRole('textbox').textContent).toBe('Ebb'));
  editorThere().commands.insertContentAt(4, 's');
  await waitFor(() => expect(plainText(drawn.at(-1) ?? '')).toBe('Ebbs'));
  // Stored and read again: it says the same.
  typeWith = structuredClone(drawn.at(-1) ?? '');
  older(typeWith);
  await waitFor(() => expect(plainText(drawn.at(-1) ?? '')).toBe('Ebbs and flow'));
  expect(screen.getByRole('textbox').textContent).toBe('Ebbs and flow');
  expect(editorThere().state.selection.from).toBe(3);
});
