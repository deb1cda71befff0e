import { bytesFrom } from '../../basics/base64';
import { kindOf, type Question } from '../../kinds';
import { isPicture, pictureType } from '../../basics/fileRules';
import { mostQuestions, PaperContent, type PaperPart } from '../../model/paper';
import { roundPoints } from '../../basics/points';
import { childNamed, childrenNamed, within, wordsIn, type XmlElement } from '../../kinds/qti/element';
import { questionsFrom } from './readItem';
import type { Loss } from './losses';
import { Refused } from '../../basics/refused';
import { testOf, type ItemRef } from './assessmentTest';
import { xmlFrom } from '../../kinds/qti/xml';
import { unpacked, type PackageFiles } from '../unpacked';
import { textOf } from '../textOf';
import { resolved } from '../zip';

/** A picture of a package, under the id by which the papers name it until it is kept. */
export interface PackedPicture {
  id: string;
  name: string;
  bytes: Uint8Array<ArrayBuffer>;
}

/** What a package held. */
export interface ReadPackage {
  papers: PaperContent[];
  pictures: PackedPicture[];
  losses: Loss[];
}

interface Resource {
  type: string;
  href: string;
  tags: string[];
}

/**
 * Reads a QTI package of version 2.1, 2.2 or 3.0: each test as a paper, items that stand in no test as one more.
 *
 * @param name what the file is called, for a paper that has no title
 * @param newId gives every question, option and part an id of this desk
 * @param progress called with how many items of all are read
 * @throws {Refused} when the package is no package, or not safe to read; nothing of it is taken
 */
export async function papersFromQti(
  bytes: Uint8Array,
  name: string,
  newId: () => string,
  progress: (done: number, of: number) => void = () => undefined,
): Promise<ReadPackage> {
  const files = await unpacked(bytes);
  const { base, title, resources } = manifestOf(files);
  const items = resources.filter(({ type }) => /^imsqti_(item|apipitem|assessmentitem)/i.test(type));
  const tests = resources.filter(({ type }) => /^imsqti_(test|apiptest|assessmenttest|section)/i.test(type));
  const old = resources.filter(({ type }) => /^imsqti_xmlv1/i.test(type));
  const losses = old.map(({ href }): Loss => ({ place: href, code: 'unreadItem', detail: '1.2' }));
  const reading: Reading = {
    files,
    pictures: new PictureShelf(files),
    tagsOf: new Map(items.map(({ href, tags }) => [`${base}${href}`, tags])),
    newId,
    losses,
    done: 0,
    read: new Set(),
    tell: (done) => progress(Math.min(done, Math.max(items.length, 1)), Math.max(items.length, 1)),
  };
  const papers = tests.map(({ href }) => paperOf(reading, `${base}${href}`, href, title || name));
  const loose = items.map(({ href }) => `${base}${href}`).filter((path) => !reading.read.has(path));
  if (loose.length > 0) {
    const questions = loose.flatMap((path, index) =>
      questionsOf(reading, { path, href: path, weight: 1, partId: undefined }, index),
    );
    papers.push(bounded({ title: title || name, instructions: '', questions }, losses));
  }
  if (papers.length === 0) throw new Refused('nothingIn', 'imsmanifest.xml');
  return { papers, pictures: reading.pictures.taken(), losses };
}

/** A package being read, and what was found in it so far. */
interface Reading {
  files: PackageFiles;
  pictures: PictureShelf;
  /** What the manifest says that an item is about, by its path. */
  tagsOf: ReadonlyMap<string, string[]>;
  newId: () => string;
  losses: Loss[];
  /** How many items are read; and which, by their paths. */
  done: number;
  read: Set<string>;
  tell: (done: number) => void;
}

function fileAt({ files }: Reading, path: string) {
  const file = files.get(path);
  if (!file) throw new Refused('missingFile', path);
  return xmlFrom(textOf(file), path);
}

/** A test as a paper. */
function paperOf(reading: Reading, path: string, href: string, otherwise: string): PaperContent {
  const said = testOf(fileAt(reading, path), reading.pictures.at(path), (code, detail) =>
    reading.losses.push({ place: href, code, detail }),
  );
  const partIds = new Map(said.parts.map((part) => [part.id, reading.newId()]));
  const parts = said.parts.map((part): PaperPart => ({ ...part, id: partIds.get(part.id) ?? part.id }));
  const questions = said.items.flatMap((item, index) => {
    const partId = item.partId === undefined ? undefined : partIds.get(item.partId);
    return questionsOf(reading, { ...item, path: resolved(path, item.href), partId }, index);
  });
  return bounded(
    {
      title: said.title || otherwise,
      instructions: said.instructions,
      questions,
      ...(parts.length > 0 && { parts }),
      ...(said.shuffle && { shuffle: true }),
    },
    reading.losses,
  );
}

/** The questions of an item, with what the test and the manifest say of them. */
function questionsOf(reading: Reading, ref: ItemRef & { path: string }, index: number): Question[] {
  const root = fileAt(reading, ref.path);
  const place = root.attrs.title?.trim() || root.attrs.identifier || ref.path;
  const said = new Set<string>();
  const lose = (code: Loss['code'], detail: string) => {
    if (said.has(`${code} ${detail}`)) return;
    said.add(`${code} ${detail}`);
    reading.losses.push({ place: `${index + 1}: ${place}`, code, detail });
  };
  const found = questionsFrom(root, reading.pictures.at(ref.path), lose);
  reading.read.add(ref.path);
  reading.tell(++reading.done);
  return found.map((each) => ({
    ...kindOf(each.question).copy(each.question, reading.newId),
    points: roundPoints(Math.min(1000, Math.max(0, ref.weight * each.max))),
    tags: (reading.tagsOf.get(ref.path) ?? []).slice(0, 50),
    ...(ref.partId !== undefined && { partId: ref.partId }),
  }));
}

/** A paper within its bounds; what is too much is named. */
function bounded(paper: PaperContent, losses: Loss[]): PaperContent {
  const over = paper.questions.length - mostQuestions;
  if (over > 0) losses.push({ place: paper.title, code: 'tooMany', detail: String(over) });
  return PaperContent.parse({ ...paper, questions: paper.questions.slice(0, mostQuestions) });
}

function manifestOf(files: PackageFiles): { base: string; title: string; resources: Resource[] } {
  const path = [...files.keys()]
    .filter((each) => /(^|\/)imsmanifest\.xml$/i.test(each))
    .sort((a, b) => a.split('/').length - b.split('/').length)[0];
  const file = path === undefined ? undefined : files.get(path);
  if (path === undefined || !file) throw new Refused('notPackage', 'imsmanifest.xml');
  const root = xmlFrom(textOf(file), path);
  const resources = within(root, 'resource').map((resource): Resource => ({
    type: resource.attrs.type ?? '',
    href: resolved('', resource.attrs.href ?? childNamed(resource, 'file')?.attrs.href ?? ''),
    tags: within(resource, 'keyword')
      .map((each) => wordsIn(each).trim().slice(0, 200))
      .filter(Boolean),
  }));
  return { base: path.slice(0, path.lastIndexOf('/') + 1), title: titleOf(root), resources };
}

function titleOf(root: XmlElement): string {
  const general = childrenNamed(root, 'metadata').flatMap((metadata) => within(metadata, 'general'))[0];
  return wordsIn(childNamed(general, 'title')).trim().slice(0, 200);
}

/** Null where it is no Base64 (RFC 4648, section 4). */
function bytesOfBase64(base64: string): Uint8Array<ArrayBuffer> | null {
  try {
    return bytesFrom(base64);
  } catch {
    return null;
  }
}

/** The pictures that the papers of a package name, each taken once. */
class PictureShelf {
  private readonly byPath = new Map<string, PackedPicture>();

  constructor(private readonly files: PackageFiles) {}

  /** Finds pictures as a file at this path names them. */
  at(from: string): (src: string) => string | null {
    return (src) => {
      if (src.startsWith('data:')) return this.inline(src);
      if (/^[a-z][a-z0-9+.-]*:|^\/\//i.test(src)) return null;
      const path = resolved(from, src.replace(/[?#].*$/, ''));
      const bytes = this.files.get(path);
      return bytes ? this.take(path, bytes) : null;
    };
  }

  taken = (): PackedPicture[] => [...this.byPath.values()];

  /** A picture written into the text itself (RFC 2397). */
  private inline(src: string): string | null {
    const [, type = '', base64 = ''] = /^data:([a-z/+.-]+);base64,([A-Za-z0-9+/=\s]+)$/.exec(src) ?? [];
    if (!isPicture({ mediaType: type })) return null;
    const bytes = bytesOfBase64(base64.replace(/\s/g, ''));
    return bytes && this.take(src, bytes);
  }

  private take(path: string, bytes: Uint8Array<ArrayBuffer>): string | null {
    // What is no picture by its bytes may still be a drawing in SVG, which the page turns into one.
    if (!pictureType(bytes) && !/\.svg$/i.test(path)) return null;
    const known = this.byPath.get(path);
    if (known) return known.id;
    const name = path.startsWith('data:') ? 'picture' : path.slice(path.lastIndexOf('/') + 1);
    const picture = { id: `packed-${this.byPath.size + 1}`, name: name.slice(0, 200), bytes };
    this.byPath.set(path, picture);
    return picture.id;
  }
}
