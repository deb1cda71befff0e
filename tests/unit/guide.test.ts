import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { guidePartOf, guideParts } from '@/desk/guideParts';
import { sectionsOf } from '@/desk/guideSections';
import { interfaceTexts } from './interfaceTexts';

const folder = 'docs/guide';
const files = readdirSync(folder).sort();
const text = (file: string) => readFileSync(join(folder, file), 'utf8');
const sections = files.flatMap((file) => sectionsOf(file, text(file)));
const places = new Set(sections.map(({ href }) => href));

/** What stands in bold is a name in the interface; a full stop or comma may belong to the sentence. */
const named = (file: string) =>
  [...text(file).matchAll(/\*\*([^*]+)\*\*/g)].map(([, name = '']) => name.replace(/\s+/g, ' '));

/** What stands as code and is no command, address or file is a key. */
const keysIn = (file: string) =>
  [...text(file).matchAll(/`([^`]+)`/g)]
    .map(([, key = '']) => key)
    .filter((key) => !/^(npm |docs\/|\/sit$|[A-Z_]{4,}|exchange$)/.test(key));

describe('the guide', () => {
  const texts = interfaceTexts('src');

  it.each(files)('%s names only what the interface says', (file) => {
    const known = (name: string) => texts.has(name) || texts.has(name.replace(/[.,:]$/, ''));
    expect(named(file).filter((name) => !known(name))).toEqual([]);
  });

  it.each(files)('%s names only keys that a page lists', (file) => {
    const listed = shortcuts();
    expect(keysIn(file).filter((key) => !listed.has(key))).toEqual([]);
  });

  it('notices a name and a key that are not there', () => {
    expect(texts.has('Grade everything now')).toBe(false);
    expect(shortcuts().has('Ctrl Q')).toBe(false);
  });

  it.each(files)('%s leads only to what is there', (file) => {
    const links = [...text(file).matchAll(/[^!]\[[^\]]*\]\(([^)]+)\)/g)].map(([, to = '']) => to);
    const pages = links.map((to) => to.replace(/^(\d+-([a-z-]+)\.md)/, '/guide/$2'));
    expect(pages.filter((to) => !places.has(to))).toEqual([]);
    const pictures = [...text(file).matchAll(/!\[[^\]]+\]\(([^)]+)\)/g)].map(([, to = '']) => to);
    expect(pictures.filter((to) => !existsSync(join(folder, to)))).toEqual([]);
  });

  it('has a part for every page of the desk, and a page for every part', () => {
    const pages = readdirSync('src/pages', { recursive: true, encoding: 'utf8' })
      .filter((name) => name.endsWith('.astro') && !/^(guide\/|404|sit\.)/.test(name))
      .map((name) => `/${name.replace(/(^|\/)index\.astro$|\.astro$/, '')}`);
    expect(Object.keys(guideParts).sort()).toEqual(pages.sort());
    expect(Object.values(guideParts).filter((part) => !places.has(`/guide/${part}`))).toEqual([]);
  });

  it('opens at the part about a page, whatever stands in its address', () => {
    expect(guidePartOf('/sittings/x-1/mark')).toBe('/guide/mark#by-keys');
    expect(guidePartOf('/groups/register')).toBe('/guide/students#adding-students');
    expect(guidePartOf('/')).toBe('/guide/start');
    expect(guidePartOf('/somewhere/else')).toBe('/guide/start');
  });

  it('is found by its words, without signs and addresses', () => {
    const backups = sections.find(({ href }) => href === '/guide/files#backups');
    expect(backups?.page).toBe('Files');
    expect(backups?.words).toContain('saves the whole desk as one file');
    for (const { words } of sections) expect(words).not.toMatch(/\]\(|\*\*|`/);
  });
});

/** Every key that is shown beside what it does, or in the list of a page. */
function shortcuts(): Set<string> {
  const keys = new Set<string>();
  const sources = readdirSync('src', { recursive: true, encoding: 'utf8' }).filter((name) =>
    /\.tsx?$/.test(name),
  );
  for (const name of sources)
    for (const [, list = ''] of readFileSync(join('src', name), 'utf8').matchAll(
      /keys(?:: |=)['"]([^'"]+)['"]/g,
    ))
      for (const key of [list, ...list.split(/\s{2,}| (?=Alt|Ctrl|Shift)| … ?/)]) keys.add(key.trim());
  // A range is each of its keys.
  if (keys.has('A–Z')) for (const letter of 'ABCDEFGHIJKLMNOPQRSTUVWXYZ') keys.add(letter);
  return keys;
}
