import { childNamed, element, type XmlElement } from '../qti/element';
import { imageElement } from '../qti/body';
import type { ItemSource, QtiKind } from '../qti/ItemForm';
import { PictureRef } from '../../basics/file';
import { handScored, scorerRubric } from '../handQti';
import { sheetHeight, sheetWidth } from './strokes';
import type { Working } from './schema';
import type { WorkingWay } from './WorkingWay';

/** Stands for an empty sheet in a package: an interaction to draw in needs a picture. */
export const emptySheet = 'empty-sheet';

/** A drawing, texts and an upload together, scored by a person. */
export const workingQti: QtiKind<Working> = {
  turn: 120,
  write: (question) => ({
    declarations: question.ways.map((way) =>
      handScored(responses[way], way === 'photo' || way === 'drawing' ? 'file' : 'string'),
    ),
    interactions: question.ways.map((way) => interactionOf(way, question)),
    scoring: 'hand',
    rubric: scorerRubric(question),
  }),
  read: (source) => {
    const ways = source.interactions.map(wayOf);
    const [only] = source.interactions;
    if (
      ways.some((way) => way === null) ||
      (source.interactions.length === 1 && only?.name !== 'drawingInteraction')
    )
      return null;
    const canvas = canvasIn(source);
    const shown = [...new Set(ways.filter((way) => way !== null))];
    return { kind: 'working', ...source.marking, ways: shown, ...(canvas && { canvas }) };
  },
};

const responses: Record<WorkingWay, string> = {
  words: 'WORDS',
  maths: 'MATHS',
  drawing: 'DRAWING',
  photo: 'PHOTO',
};

function interactionOf(way: WorkingWay, { canvas }: Working): XmlElement {
  const responseIdentifier = responses[way];
  switch (way) {
    case 'drawing':
      return element(
        'drawingInteraction',
        { responseIdentifier },
        imageElement(
          canvas ?? { asset: emptySheet, alt: '', decoration: true, width: sheetWidth, height: sheetHeight },
        ),
      );
    case 'photo':
      return element('uploadInteraction', { responseIdentifier, type: 'image/*' });
    default:
      return element('extendedTextInteraction', {
        responseIdentifier,
        class: way === 'maths' ? 'maths' : null,
        expectedLines: 4,
      });
  }
}

function wayOf(interaction: XmlElement): WorkingWay | null {
  switch (interaction.name) {
    case 'drawingInteraction':
      return 'drawing';
    case 'uploadInteraction':
      return 'photo';
    case 'extendedTextInteraction':
      return interaction.attrs.class === 'maths' ? 'maths' : 'words';
    default:
      return null;
  }
}

/** The picture to draw on, unless it is the empty sheet. */
function canvasIn(source: ItemSource): PictureRef | null {
  const drawing = source.interactions.find(({ name }) => name === 'drawingInteraction');
  const image = drawing && (childNamed(drawing, 'img') ?? childNamed(drawing, 'object'));
  if (!image || `${image.attrs.src ?? image.attrs.data}`.includes(emptySheet)) return null;
  const rich = source.rich([image]);
  const picture = typeof rich === 'string' ? null : PictureRef.safeParse(rich.content[0]?.attrs);
  return picture?.success ? picture.data : null;
}
