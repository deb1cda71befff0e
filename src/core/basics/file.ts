import { z } from 'zod';
import { Id, Line } from './common';

/** What is said of a file where it is used. Its bytes are kept apart, under its id, which is drawn from them. */
export const FileRef = z.object({ id: Id, name: Line, mediaType: Line, size: z.number().int().min(0) });
export type FileRef = z.infer<typeof FileRef>;

/** A picture where it stands: which one, what it says to who cannot see it, and its size in its own pixels. */
export const PictureRef = z.object({
  asset: Id,
  /** What it shows, in words; empty only while it is not written yet, or for a decoration. */
  alt: Line,
  /** Says nothing that matters: read over. */
  decoration: z.boolean(),
  width: z.number().int().min(1).max(20_000),
  height: z.number().int().min(1).max(20_000),
});
export type PictureRef = z.infer<typeof PictureRef>;
