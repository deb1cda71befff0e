import { Button, TextInput } from '@mantine/core';
import { RichTextEditor } from '@mantine/tiptap';
import { IconMathFunction, IconTable } from '@/ui/icons';
import { Mathematics } from '@tiptap/extension-mathematics';
import Subscript from '@tiptap/extension-subscript';
import Superscript from '@tiptap/extension-superscript';
import { TableKit } from '@tiptap/extension-table';
import { useEditor, type Editor } from '@tiptap/react';
import { NodeSelection } from '@tiptap/pm/state';
import StarterKit from '@tiptap/starter-kit';
import { useLayoutEffect, useRef, useState } from 'react';
import '../ui/katexStyles';
import '@mantine/tiptap/styles.css';
import { RichDoc, type RichText } from '@/core/basics/richText';
import { richDoc, simplest } from '@/core/basics/richWords';
import type { PictureRef } from '@/core/basics/file';
import { useFiles } from '../ui/files';
import { ChoosePicture, PictureWords, takePicture } from './PictureChoice';
import { PictureNode } from './PictureNode';
import { RichWords } from '../ui/RichWords';
import styles from './RichEditor.module.css';

interface RichEditorProps {
  id: string;
  label: string;
  value: RichText;
  placeholder?: string;
  low?: boolean;
  change: (value: RichText) => void;
}

/** The maths that is being put in or changed; `at` is its place in the document, null for a new one. */
interface Formula {
  latex: string;
  block: boolean;
  at: number | null;
}

/** A field for text with markup: what is typed is kept as its document. */
export default function RichEditor({ id, label, value, placeholder, low, change }: RichEditorProps) {
  const [formula, setFormula] = useState<Formula | null>(null);
  const [focused, setFocused] = useState(false);
  const [picture, setPicture] = useState<SetPicture | null>(null);
  const { put } = useFiles();
  // What was handed up last: a value that comes down and is not this one comes from elsewhere (an undo).
  const known = useRef(value);
  const keep = useRef(change);
  // With the drawing, not after it: a key may come in between.
  useLayoutEffect(() => {
    keep.current = change;
  });
  const editor = useEditor({
    extensions: [
      StarterKit.configure({
        heading: false,
        blockquote: false,
        code: false,
        codeBlock: false,
        horizontalRule: false,
        strike: false,
        underline: false,
        trailingNode: false,
        link: { openOnClick: false, protocols: ['http', 'https'], defaultProtocol: 'https' },
      }),
      PictureNode,
      Subscript,
      Superscript,
      TableKit.configure({ table: { resizable: false } }),
      Mathematics.configure({
        inlineOptions: {
          onClick: (node, at) => setFormula({ latex: String(node.attrs.latex), block: false, at }),
        },
        blockOptions: {
          onClick: (node, at) => setFormula({ latex: String(node.attrs.latex), block: true, at }),
        },
        katexOptions: { throwOnError: false, trust: false, maxExpand: 200 },
      }),
    ],
    content: richDoc(value),
    immediatelyRender: false,
    shouldRerenderOnTransaction: false,
    editorProps: {
      handlePaste: (_view, event) => takeFiles([...(event.clipboardData?.files ?? [])]),
      handleDrop: (_view, event, _slice, moved) =>
        !moved && takeFiles([...(event.dataTransfer?.files ?? [])]),
      attributes: { id, role: 'textbox', 'aria-label': label, 'aria-multiline': 'true' },
    },
    onUpdate: ({ editor: changed }) => {
      // Of what the editor has, only what the product knows is kept.
      const parsed = RichDoc.safeParse(changed.getJSON());
      if (!parsed.success) return;
      known.current = simplest(parsed.data);
      keep.current(known.current);
    },
    onFocus: () => setFocused(true),
    onTransaction: ({ editor: changed }) => {
      const next = chosenPicture(changed);
      setPicture((before) => (JSON.stringify(before) === JSON.stringify(next) ? before : next));
    },
  });
  // With the drawing, too: what is typed between the two would go for what comes from elsewhere, and be taken back.
  useLayoutEffect(() => {
    if (!editor || JSON.stringify(value) === JSON.stringify(known.current)) return;
    known.current = value;
    editor.commands.setContent(richDoc(value), { emitUpdate: false });
  }, [editor, value]);
  // What is put in is chosen at once: it has to be told what it shows.
  const insert = (taken: PictureRef) => {
    if (!editor) return;
    // After what is chosen, not in place of it.
    editor
      .chain()
      .focus()
      .insertContentAt(editor.state.selection.to, { type: 'picture', attrs: taken })
      .run();
    editor.state.doc.descendants((node, at) => {
      if (node.type.name === 'picture' && node.attrs.asset === taken.asset && !node.attrs.alt)
        editor.commands.setNodeSelection(at);
    });
  };
  /** True when there are pictures among them: then they are put in here. */
  const takeFiles = (files: File[]): boolean => {
    const pictures = files.filter((file) => file.type.startsWith('image/'));
    for (const file of pictures) void takePicture(file, put).then((taken) => taken && insert(taken));
    return pictures.length > 0;
  };
  if (!editor) return <RichWords value={value} low={low} />;
  return (
    <div
      className={styles.field}
      data-low={low}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) setFocused(false);
      }}
    >
      <RichTextEditor
        editor={editor}
        withTypographyStyles={false}
        classNames={{ root: styles.root ?? '', content: styles.content ?? '' }}
      >
        {(!low || focused || formula) && (
          <RichTextEditor.Toolbar className={styles.toolbar ?? ''} role="toolbar" aria-label="Markup">
            <RichTextEditor.ControlsGroup>
              <RichTextEditor.Bold />
              <RichTextEditor.Italic />
              <RichTextEditor.Subscript />
              <RichTextEditor.Superscript />
              <RichTextEditor.BulletList />
              <RichTextEditor.OrderedList />
              <RichTextEditor.Link />
              <RichTextEditor.Unlink />
              <TableControls editor={editor} />
              <RichTextEditor.Control
                aria-label="Maths"
                title="Maths"
                onClick={() => setFormula({ latex: '', block: false, at: null })}
              >
                <IconMathFunction size={16} />
              </RichTextEditor.Control>
              <ChoosePicture label="Picture" taken={insert} />
            </RichTextEditor.ControlsGroup>
          </RichTextEditor.Toolbar>
        )}
        <RichTextEditor.Content data-placeholder={editor.isEmpty ? placeholder : undefined} />
      </RichTextEditor>
      {picture && (
        <div className={styles.pictureWords}>
          <PictureWords
            picture={picture}
            change={(words) => {
              editor.commands.command(({ tr }) => {
                for (const [name, value] of Object.entries(words))
                  tr.setNodeAttribute(picture.at, name, value);
                return true;
              });
            }}
          />
        </div>
      )}
      {formula && <FormulaField formula={formula} set={setFormula} editor={editor} />}
    </div>
  );
}

/** The picture that is chosen in the text, and its place. */
interface SetPicture {
  at: number;
  alt: string;
  decoration: boolean;
}

function chosenPicture(editor: Editor): SetPicture | null {
  const { selection } = editor.state;
  if (!(selection instanceof NodeSelection) || selection.node.type.name !== 'picture') return null;
  const { alt, decoration } = selection.node.attrs;
  return { at: selection.from, alt: String(alt), decoration: decoration === true };
}

function TableControls({ editor }: { editor: Editor }) {
  const inTable = editor.isActive('table');
  return (
    <>
      <RichTextEditor.Control
        aria-label={inTable ? 'Remove the table' : 'Insert a 3 × 3 table'}
        title={inTable ? 'Remove the table' : 'Insert a 3 × 3 table'}
        onClick={() =>
          inTable
            ? editor.chain().focus().deleteTable().run()
            : editor.chain().focus().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run()
        }
      >
        <IconTable size={16} />
      </RichTextEditor.Control>
    </>
  );
}

/** Where maths is typed, as TeX, and put into the text. */
function FormulaField({
  formula,
  set,
  editor,
}: {
  formula: Formula;
  set: (formula: Formula | null) => void;
  editor: Editor;
}) {
  const { latex, block, at } = formula;
  const done = () => {
    set(null);
    editor.commands.focus();
  };
  const put = (asBlock: boolean) => {
    const place = at === null ? {} : { pos: at };
    if (at !== null && asBlock === block) {
      if (asBlock) editor.commands.updateBlockMath({ latex, ...place });
      else editor.commands.updateInlineMath({ latex, ...place });
    } else if (asBlock) editor.commands.insertBlockMath({ latex });
    else editor.commands.insertInlineMath({ latex });
    done();
  };
  return (
    <form
      className={styles.formula}
      onSubmit={(event) => {
        event.preventDefault();
        event.stopPropagation();
        if (latex.trim()) put(block);
      }}
    >
      <TextInput
        autoFocus
        size="xs"
        aria-label="Maths in TeX"
        placeholder="\frac{d}{t} = v"
        value={latex}
        onChange={(event) => set({ ...formula, latex: event.currentTarget.value })}
        onKeyDown={(event) => {
          if (event.key !== 'Escape') return;
          event.stopPropagation();
          done();
        }}
      />
      <Button type="submit" size="compact-sm" disabled={!latex.trim()}>
        {at === null ? 'Insert in the text' : 'Update'}
      </Button>
      {at === null && (
        <Button size="compact-sm" disabled={!latex.trim()} onClick={() => put(true)}>
          Insert on its own line
        </Button>
      )}
      <Button size="compact-sm" onClick={done}>
        Cancel
      </Button>
    </form>
  );
}
