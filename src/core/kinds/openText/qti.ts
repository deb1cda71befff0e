import { element } from '../qti/element';
import type { QtiKind } from '../qti/ItemForm';
import { handScored, scorerRubric } from '../handQti';
import type { OpenText } from './schema';

/** An extended text, scored by a person with the rubric blocks beside it. */
export const openTextQti: QtiKind<OpenText> = {
  turn: 100,
  write: (question) => ({
    declarations: [handScored('RESPONSE', 'string')],
    interactions: [element('extendedTextInteraction', { responseIdentifier: 'RESPONSE', expectedLines: 5 })],
    scoring: 'hand',
    rubric: scorerRubric(question),
  }),
  read: (source) => {
    const [interaction, ...more] = source.interactions;
    if (interaction?.name !== 'extendedTextInteraction' || more.length > 0) return null;
    const [right = ''] = source.declarationOf(interaction)?.correct ?? [];
    return { kind: 'openText', ...source.marking, modelAnswer: source.marking.modelAnswer || right };
  },
};
