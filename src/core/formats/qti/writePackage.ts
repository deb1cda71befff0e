import type { Question } from '../../kinds';
import type { Asset } from '../../basics/asset';
import { assetsIn } from '../../basics/fileRules';
import type { PaperContent } from '../../model/paper';
import { emptySheet } from '../../kinds/working/qti';
import { element, isElement, type XmlElement, type XmlNode } from '../../kinds/qti/element';
import { identifierOf } from '../../kinds/qti/identifiers';
import { itemWithKept, keptFields } from './kept';
import { questionsFrom } from './readItem';
import { itemFrom } from './writeItem';
import type { Loss } from './losses';
import { testFrom } from './assessmentTest';
import { xmlFrom, xmlText } from '../../kinds/qti/xml';
import { packed } from '../zip';

/** A paper as a QTI 3.0 package, and what of it other programs will not read. */
export interface WrittenPackage {
  bytes: Uint8Array<ArrayBuffer>;
  losses: Loss[];
}

type Picture = Pick<Asset, 'id' | 'mediaType' | 'bytes'>;

/** One transparent point (PNG): what there is to draw on where there is nothing. */
const emptyPng =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==';

const sheet: Picture = {
  id: emptySheet,
  mediaType: 'image/png',
  bytes: Uint8Array.from(atob(emptyPng), (letter) => letter.charCodeAt(0)),
};

/**
 * Writes a paper as a QTI 3.0 package: a manifest, a test, an item a question, and the pictures. Each item is read
 * again at once; what it does not give back is kept beside it for Gribbet, and listed for everyone else.
 *
 * @param pictures those that stand in the paper; ones that are not given are listed as lost
 * @param progress called with how many questions of all are written
 */
export function qtiPackage(
  paper: PaperContent,
  pictures: readonly Picture[],
  progress: (done: number, of: number) => void = () => undefined,
): WrittenPackage {
  const losses: Loss[] = [];
  const paths = new Map(
    [...pictures, sheet].map((each) => [each.id, `pictures/${each.id}.${endingOf(each)}`]),
  );
  const files: Record<string, Uint8Array | string> = {};
  const used = new Set<string>();
  const resources: XmlElement[] = [];
  paper.questions.forEach((question, index) => {
    const lose = (code: Loss['code'], detail = '') =>
      losses.push({ place: placeOf(question, index), code, detail });
    const located = withPaths(itemFrom(question), paths, used, (id) => lose('picture', id));
    const [read] = questionsFrom(
      xmlFrom(xmlText(located), question.id),
      (src) => assetAt(src),
      () => undefined,
    );
    const kept = keptFields(question, read?.question ?? null);
    for (const field of Object.keys(kept)) lose('onlyHere', field);
    const path = itemPath(question);
    files[path] = xmlText(itemWithKept(located, kept));
    resources.push(resource(identifierOf(question.id), 'imsqti_item_xmlv3p0', path, question.tags));
    progress(index + 1, paper.questions.length);
  });
  for (const part of paper.parts ?? [])
    if (part.newPage) losses.push({ place: part.title, code: 'newPage', detail: '' });
  if (paper.wantedPoints !== undefined)
    losses.push({ place: paper.title, code: 'wantedPoints', detail: String(paper.wantedPoints) });
  const test = withPaths(testFrom(paper, 'TEST', itemPath), paths, used, (id) =>
    losses.push({ place: paper.title, code: 'picture', detail: id }),
  );
  files['test.xml'] = xmlText(test).replaceAll('"../pictures/', '"pictures/');
  const usedPictures = [...pictures, sheet].filter(({ id }) => used.has(id));
  for (const { id, bytes } of usedPictures) files[paths.get(id) ?? id] = bytes;
  files['imsmanifest.xml'] = xmlText(
    manifest(paper.title, [
      resource(
        'TEST',
        'imsqti_test_xmlv3p0',
        'test.xml',
        [],
        paper.questions.map(({ id }) => identifierOf(id)),
      ),
      ...resources,
      ...usedPictures.map(({ id }) =>
        resource(`picture${identifierOf(id)}`, 'webcontent', paths.get(id) ?? id, []),
      ),
    ]),
    () => false,
  );
  return { bytes: zipOf(files), losses };
}

/** Files by their paths as a zip; texts in UTF-8. */
function zipOf(files: Readonly<Record<string, Uint8Array | string>>): Uint8Array<ArrayBuffer> {
  const encoder = new TextEncoder();
  const zipped = Object.entries(files).map(([path, content]) => [
    path,
    typeof content === 'string' ? encoder.encode(content) : content,
  ]);
  return packed(Object.fromEntries(zipped));
}

/** The pictures that stand in a paper, by their ids. */
export const picturesOf = (paper: PaperContent) => assetsIn(paper);

const itemPath = ({ id }: Question) => `items/${identifierOf(id)}.xml`;

const placeOf = (_question: Question, index: number) => `Question ${index + 1}`;

const endingOf = ({ mediaType }: Picture) =>
  mediaType
    .replace(/^image\//, '')
    .replace('jpeg', 'jpg')
    .replace(/[^a-z0-9]/g, '') || 'bin';

const assetAt = (src: string) => src.slice(src.lastIndexOf('/') + 1).replace(/\.[a-z0-9]+$/, '');

/** The tree with the paths of pictures in place of their ids; pictures that are not there are left out. */
function withPaths(
  node: XmlElement,
  paths: ReadonlyMap<string, string>,
  used: Set<string>,
  missing: (id: string) => void,
): XmlElement {
  const placed = (child: XmlNode): XmlNode[] => {
    if (!isElement(child)) return [child];
    if (child.name !== 'img') return [withPaths(child, paths, used, missing)];
    const id = child.attrs.src ?? '';
    const path = paths.get(id);
    if (path === undefined) return (missing(id), []);
    used.add(id);
    return [{ ...child, attrs: { ...child.attrs, src: `../${path}` } }];
  };
  return { ...node, children: node.children.flatMap(placed) };
}

function manifest(title: string, resources: XmlElement[]): XmlElement {
  return element(
    'manifest',
    {
      xmlns: 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1',
      'xmlns:imsmd': 'http://ltsc.ieee.org/xsd/LOM',
      identifier: 'MANIFEST',
    },
    element(
      'metadata',
      {},
      element('schema', {}, 'QTI Package'),
      element('schemaversion', {}, '3.0.0'),
      lom(element('imsmd:title', {}, element('imsmd:string', {}, title))),
    ),
    element('organizations'),
    element('resources', {}, ...resources),
  );
}

const lom = (...general: XmlElement[]) => element('imsmd:lom', {}, element('imsmd:general', {}, ...general));

function resource(
  identifier: string,
  type: string,
  href: string,
  tags: readonly string[],
  dependencies: readonly string[] = [],
): XmlElement {
  const keywords = tags.map((tag) => element('imsmd:keyword', {}, element('imsmd:string', {}, tag)));
  return element(
    'resource',
    { identifier, type, href },
    keywords.length > 0 ? element('metadata', {}, lom(...keywords)) : null,
    element('file', { href }),
    ...dependencies.map((identifierref) => element('dependency', { identifierref })),
  );
}
