import { defineCollection, z } from 'astro:content';
import { glob } from 'astro/loaders';

/** The guide, as it also stands in docs/guide: its files are numbered in the order of the job, its pages are not. */
const guide = defineCollection({
  loader: glob({
    pattern: '*.md',
    base: './docs/guide',
    generateId: ({ entry }) => entry.replace(/^\d+-|\.md$/g, ''),
  }),
  schema: z.object({ title: z.string(), about: z.string() }),
});

export const collections = { guide };
