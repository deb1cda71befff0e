import { Node } from '@tiptap/core';
import { NodeViewWrapper, ReactNodeViewRenderer, type NodeViewProps } from '@tiptap/react';
import { PictureRef } from '@/core/basics/file';
import { Picture } from '../ui/Picture';
import styles from './RichEditor.module.css';

/** A picture in a text that is being written. From what is pasted as HTML none is taken: a picture is a file. */
export const PictureNode = Node.create({
  name: 'picture',
  group: 'block',
  atom: true,
  draggable: true,
  addAttributes: () => ({
    asset: { default: '' },
    alt: { default: '' },
    decoration: { default: false },
    width: { default: 1 },
    height: { default: 1 },
  }),
  renderHTML: () => ['span', { 'data-picture': '' }],
  addNodeView: () => ReactNodeViewRenderer(EditedPicture),
});

function EditedPicture({ node, selected }: NodeViewProps) {
  const parsed = PictureRef.safeParse(node.attrs);
  return (
    <NodeViewWrapper className={selected ? styles.chosenPicture : styles.editedPicture}>
      {parsed.success && <Picture picture={parsed.data} />}
    </NodeViewWrapper>
  );
}
