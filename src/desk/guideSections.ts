/// <reference types="vite/client" />
import GithubSlugger from 'github-slugger';

/** A part of the guide, as search finds it. */
export interface GuideSection {
  /** Where it stands. */
  href: string;
  heading: string;
  page: string;
  /** All of its words. */
  words: string;
}

const files = import.meta.glob<string>('../../docs/guide/*.md', { query: '?raw', import: 'default' });

/** All parts of the guide, in their order: read only once they are asked for. */
export async function guideSections(): Promise<GuideSection[]> {
  const texts = await Promise.all(
    Object.entries(files).map(async ([path, read]) => ({ path, text: await read() })),
  );
  return texts
    .sort((a, b) => a.path.localeCompare(b.path))
    .flatMap(({ path, text }) => sectionsOf(path, text));
}

/**
 * The parts of one file of the guide: what stands above its first heading, and each heading with what is below it.
 *
 * @param path the file's name; its number only orders
 */
export function sectionsOf(path: string, text: string): GuideSection[] {
  const id = path.replace(/^.*\/|\.md$/g, '').replace(/^\d+-/, '');
  const page = /^title: (.*)$/m.exec(text)?.[1] ?? id;
  const [above = '', ...below] = text.replace(/^---[\s\S]*?\n---\n/, '').split(/^## /m);
  const slugs = new GithubSlugger();
  return [
    { href: `/guide/${id}`, heading: page, page, words: plainWords(above) },
    ...below.map((part) => {
      const [heading = '', ...rest] = part.split('\n');
      return {
        href: `/guide/${id}#${slugs.slug(heading)}`,
        heading,
        page,
        words: plainWords(rest.join('\n')),
      };
    }),
  ];
}

/** The words of Markdown, without its signs, pictures and addresses. */
const plainWords = (markdown: string) =>
  markdown
    .replace(/!\[[^\]]*\]\([^)]*\)/g, '')
    .replace(/\[([^\]]*)\]\([^)]*\)/g, '$1')
    .replace(/[*`|]|^#+ /gm, '')
    .replace(/\s+/g, ' ')
    .trim();
