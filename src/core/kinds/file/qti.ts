import { element } from '../qti/element';
import type { QtiKind } from '../qti/ItemForm';
import { handScored, scorerRubric } from '../handQti';
import type { FileQuestion, FileSort } from './schema';
import { fileSorts } from './sorts';

/** An upload, scored by a person. */
export const fileQti: QtiKind<FileQuestion> = {
  turn: 110,
  write: (question) => ({
    declarations: [handScored('RESPONSE', 'file')],
    interactions: [
      element('uploadInteraction', {
        responseIdentifier: 'RESPONSE',
        type: question.sorts.flatMap((sort) => fileSorts[sort].types).join(' ') || null,
      }),
    ],
    scoring: 'hand',
    rubric: scorerRubric(question),
  }),
  read: (source) => {
    const [interaction, ...more] = source.interactions;
    if (interaction?.name !== 'uploadInteraction' || more.length > 0) return null;
    const types = (interaction.attrs.type ?? '').split(/[\s,]+/).filter(Boolean);
    const sorts = (Object.keys(fileSorts) as FileSort[]).filter((sort) =>
      types.some(
        (type) => fileSorts[sort].types.includes(type) || (sort === 'picture' && type === 'image/*'),
      ),
    );
    return { kind: 'file', ...source.marking, sorts, most: 1 };
  },
};
